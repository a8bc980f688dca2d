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
     * @param  int  $printed  good pieces off the printers of the workshop
     * @param  bool  $made  printed in the workshop, not bought
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
        public int $printed = 0,
        public bool $made = false,
    ) {
    }

    /** Pieces still to be ordered. */
    public function order(): int
    {
        return $this->made ? 0 : $this->missing();
    }

    /** Pieces still to be printed. */
    public function print(): int
    {
        return $this->made ? $this->missing() : 0;
    }

    private function missing(): int
    {
        return max(0, $this->needed + $this->spare - $this->there());
    }

    private function there(): int
    {
        return $this->owned + $this->here + $this->coming + $this->printed;
    }

    /** Pieces beyond what is needed and kept spare, here or on their way. */
    public function over(): int
    {
        return max(0, $this->there() - $this->needed - $this->spare);
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
            'printed' => $this->printed,
            'order' => $this->order(),
            'print' => $this->print(),
            'over' => $this->over(),
            'doubts' => $this->doubts,
        ];
    }
}
