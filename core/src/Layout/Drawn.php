<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Differences;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Reads;
use Magpie\Core\Quantity\Quantity;

/** What followed for the leads of one arrangement, and from what. */
final class Drawn
{
    /** @var array<string, array{Lead, Lead}> lead → as it was handed in, and as drawn */
    private array $leads = [];

    /**
     * @param  list<mixed>  $ends  of its leads
     * @param  array<string, true>  $read  cells of the build that the ways were worked from
     * @param  array<string, array{Quantity, Evidence, list<string>, bool}>  $ways  lead → length, what it rests on, chains, whether it
     *     moves
     */
    public function __construct(
        private readonly Build $build,
        private readonly array $ends,
        private readonly array $read,
        private readonly array $ways,
    ) {
    }

    /**
     * Whether the ways are those of this build too.
     *
     * @param  list<mixed>  $ends  of its leads
     */
    public function stands(Build $build, array $ends): bool
    {
        if ($this->ends !== $ends) {
            return false;
        }
        // Of a lead its ends alone count, and whether somebody said how long it is: all else of it is left out.
        $differences = Differences::between($this->build->with(['leads' => $build->leads]), $build);

        return $differences !== null && ! Reads::meet($this->read, $differences->cells);
    }

    /** A lead as drawn; the same one comes out as the same object, so that an edit elsewhere leaves it alone. */
    public function lead(Lead $lead): Lead
    {
        if (! isset($this->ways[$lead->ref])) {
            return $lead;
        }
        if (($this->leads[$lead->ref][0] ?? null) !== $lead) {
            $this->leads[$lead->ref] = [$lead, $lead->drawn(...$this->ways[$lead->ref])];
        }

        return $this->leads[$lead->ref][1];
    }
}
