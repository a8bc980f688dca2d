<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Build;

/** What a cure has at hand: the build as it stands, laid out, and the parts on the workshop's shelf. */
final readonly class Repair
{
    public Build $build;

    /**
     * @param  list<Entry>  $shelf
     */
    public function __construct(public Survey $survey, private array $shelf)
    {
        $this->build = $survey->build;
    }

    /**
     * @return list<Entry> parts of one family
     */
    public function shelf(string $family): array
    {
        return array_values(
            array_filter($this->shelf, static fn (Entry $e): bool => $e->part->family->key() === $family),
        );
    }
}
