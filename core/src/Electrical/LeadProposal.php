<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\PortRef;
use Magpie\Core\Quantity\Quantity;

/** A lead that is not there yet: where it would run, how thick it has to be, and why so. */
final readonly class LeadProposal
{
    /**
     * @param  string  $class  power, mains, phase, signal or earth
     * @param  Quantity|null  $current  it is sized for; null where the part does not say what it takes
     * @param  Quantity|null  $length  of a lead that runs the same way
     * @param  string|null  $route  fixed or flexing; null when it is not known whether it moves
     * @param  string|null  $chain  need of the cable chain it would run through
     * @param  array{string, string}  $ends  what it usually ends in at either end
     * @param  list<PortRef>  $others  where else it could come from
     */
    public function __construct(
        public PortRef $from,
        public PortRef $to,
        public string $class,
        public string $size,
        public ?Quantity $current,
        public ?Quantity $length,
        public ?string $route,
        public ?string $chain,
        public array $ends,
        public string $why,
        public array $others = [],
    ) {
    }

    /**
     * It as an entry of a build file's leads, without its name.
     *
     * @return array<string, mixed>
     */
    public function entry(): array
    {
        return array_filter(
            [
                'from' => $this->from->text(),
                'to' => $this->to->text(),
                // What is chosen is what will be bought: it stands as the nominal size of its conductor.
                'conductor' => [
                    'size' => $this->size,
                    'evidence' => 'standard',
                    'stranding' => 'fine',
                    'insulation' => $this->class === 'mains' ? 'PVC 70 °C, 300/500 V' : 'PVC 70 °C',
                ],
                'length' => $this->length?->text(),
                'route' => $this->route,
                'chain' => $this->chain,
                'ends' => array_map(static fn (string $end): array => ['termination' => $end], $this->ends),
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }

    /** The same lead, from another place. */
    public function through(PortRef $from, string $why): self
    {
        return new self(
            $from,
            $this->to,
            $this->class,
            $this->size,
            $this->current,
            $this->length,
            $this->route,
            $this->chain,
            $this->ends,
            $why,
            [$this->from, ...$this->others],
        );
    }

    public function touches(string $need): bool
    {
        return $this->from->need === $need || $this->to->need === $need;
    }

    /**
     * @return array{from: string, to: string, class: string, current: string|null, why: string, others: list<string>,
     *     entry: array<string, mixed>}
     */
    public function toArray(): array
    {
        return [
            'from' => $this->from->text(),
            'to' => $this->to->text(),
            'class' => $this->class,
            'current' => $this->current?->text(),
            'why' => $this->why,
            'others' => array_map(static fn (PortRef $p): string => $p->text(), $this->others),
            'entry' => $this->entry(),
        ];
    }
}
