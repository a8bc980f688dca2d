<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** One segment of what turns with an axis: a pulley, a coupling, a flange; a hollow cylinder. */
final readonly class TurningBody
{
    /**
     * @param  Quantity|null  $bore  diameter taken out of it
     * @param  Quantity|null  $ratio  turns of it for one of the screw or pulley; 1 when not given
     */
    public function __construct(
        public string $name,
        public Quantity $outer,
        public ?Quantity $bore,
        public Quantity $length,
        public BodyMaterial $material,
        public ?Quantity $ratio = null,
    ) {
    }

    /** Its mass. */
    public function mass(): Quantity
    {
        [$out, $in] = $this->radii();

        return Quantity::of(
            (float) Materials::density($this->material->value) * M_PI * ($out ** 2 - $in ** 2) * $this->length->in('m'),
            'kg',
        );
    }

    /** Inertia about its own shaft, its bore taken out: ½·m·(r_o² + r_i²). */
    public function inertia(): Quantity
    {
        [$out, $in] = $this->radii();

        return Quantity::of(0.5 * $this->mass()->in('kg') * ($out ** 2 + $in ** 2), 'kg m²')->to('kg cm²');
    }

    /** What the screw or pulley feels of it: by the square of how much faster it turns. */
    public function felt(): Quantity
    {
        return $this->ratio === null ? $this->inertia() : $this->inertia()->times($this->ratio->squared());
    }

    /**
     * @return array{float, float} m
     */
    private function radii(): array
    {
        return [$this->outer->in('m') / 2, ($this->bore?->in('m') ?? 0.0) / 2];
    }
}
