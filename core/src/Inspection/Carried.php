<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/**
 * Something worked out on a survey that knows how to be carried over to the survey of the build after an edit. It keeps no
 * entry of the build that it has not looked up again by then.
 */
interface Carried
{
    /**
     * @param  array<string, true>  $changed  cells that have changed
     * @param  bool  $stands  no cell it was made from has changed
     */
    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver;
}
