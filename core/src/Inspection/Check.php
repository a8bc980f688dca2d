<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/**
 * One class, one rule. Register it in Assembly\Rules and the tool, the docs table and the tests know it.
 */
interface Check
{
    public function card(): Card;

    /**
     * @return iterable<Subject>
     */
    public function subjects(Survey $survey): iterable;

    /**
     * @throws InputMissing when an input is not there; the inspector turns it into Unproven
     */
    public function judge(Inquiry $inquiry, Survey $survey): Finding;

    /** Smallest builds that show the rule at work: one it trips on, one that holds. */
    public function examples(): Examples;
}
