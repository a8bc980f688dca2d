<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

/** One part that is wanted: how many, and what there is of it already. */
final readonly class OrderLine
{
    /**
     * @param  list<string>  $roles  places it is for
     * @param  int  $owned  at hand before, salvaged or given
     * @param  int  $here  arrived and not sent back
     * @param  int  $coming  ordered, not yet here
     * @param  int  $considered  in the basket, ordered by nobody
     * @param  list<string>  $doubts  what should be looked at before it is ordered
     */
    public function __construct(
        public string $part,
        public string $name,
        public array $roles,
        public int $needed,
        public int $spare,
        public int $owned,
        public int $here,
        public int $coming,
        public int $considered,
        public array $doubts,
    ) {
    }

    /** Pieces still to be ordered. */
    public function order(): int
    {
        return max(0, $this->needed + $this->spare - $this->owned - $this->here - $this->coming);
    }

    /** Pieces beyond what is needed and kept spare, here or on their way. */
    public function over(): int
    {
        return max(0, $this->owned + $this->here + $this->coming - $this->needed - $this->spare);
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'part' => $this->part,
            'name' => $this->name,
            'roles' => $this->roles,
            'needed' => $this->needed,
            'spare' => $this->spare,
            'owned' => $this->owned,
            'here' => $this->here,
            'coming' => $this->coming,
            'considered' => $this->considered,
            'order' => $this->order(),
            'over' => $this->over(),
            'doubts' => $this->doubts,
        ];
    }
}
