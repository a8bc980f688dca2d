<?php

declare(strict_types=1);

namespace Magpie\Core\Printing;

/** What a file of triangles encloses; lengths in the file's own unit, which for printing is the millimetre. */
final readonly class Mesh
{
    /** Shorter than this on its longest side, a part was perhaps drawn in inches, or in metres. */
    private const SMALL = 6.0;

    /** Longer than this it fits on no bench. */
    private const LARGE = 3000.0;

    /**
     * @param  float  $volume  by the divergence theorem; negative where its faces look inwards
     * @param  array{float, float, float}  $least
     * @param  array{float, float, float}  $most
     * @param  bool  $closed  every edge is walked as often one way as the other
     * @param  int  $flat  triangles without an area
     */
    public function __construct(
        public int $triangles,
        public float $volume,
        public float $area,
        public array $least,
        public array $most,
        public bool $closed,
        public int $flat,
    ) {
    }

    /**
     * @return array{float, float, float} its size along x, y and z
     */
    public function size(): array
    {
        return [$this->most[0] - $this->least[0], $this->most[1] - $this->least[1], $this->most[2] - $this->least[2]];
    }

    /** Null where it is open: then it encloses nothing. */
    public function encloses(): ?float
    {
        return $this->closed ? abs($this->volume) : null;
    }

    /** The same body, where the file's unit is so many millimetres. */
    public function times(float $millimetres): self
    {
        $scale = static fn (float $one): float => $one * $millimetres;
        /** @var array{float, float, float} $least */
        $least = array_map($scale, $this->least);
        /** @var array{float, float, float} $most */
        $most = array_map($scale, $this->most);

        return new self(
            $this->triangles,
            $this->volume * $millimetres ** 3,
            $this->area * $millimetres ** 2,
            $least,
            $most,
            $this->closed,
            $this->flat,
        );
    }

    /**
     * What it says of a printed part, as its sheet writes it: no volume of one that is open.
     *
     * @return array<string, string> by key of the family's sheet
     */
    public function specs(): array
    {
        [$length, $width, $height] = array_map(static fn (float $mm): string => round($mm, 2).' mm', $this->size());

        return array_filter([
            'volume' => $this->encloses() === null ? null : round($this->encloses() / 1000, 3).' cm³',
            'area' => round($this->area / 100, 2).' cm²',
            'length' => $length,
            'width' => $width,
            'height' => $height,
        ]);
    }

    /**
     * What has to be looked at before it is printed.
     *
     * @return list<string>
     */
    public function doubts(): array
    {
        $longest = max($this->size());
        $doubts = [];
        if (! $this->closed) {
            $doubts[] = 'it is open: some edge has a triangle on one side only, so it has no volume';
        } elseif ($this->volume < 0) {
            $doubts[] = 'it is inside out: its faces look inwards';
        }
        if ($longest < self::SMALL) {
            $doubts[] = sprintf(
                'its longest side is %.2f mm: was it drawn in inches (%.1f mm) or in centimetres (%.1f mm)?',
                $longest,
                $longest * 25.4,
                $longest * 10,
            );
        } elseif ($longest > self::LARGE) {
            $doubts[] = sprintf('its longest side is %.0f mm: was it drawn in another unit?', $longest);
        }
        if ($this->flat > 0) {
            $doubts[] = "{$this->flat} of {$this->triangles} triangles have no area";
        }

        return $doubts;
    }

    /**
     * @return array{triangles: int, volume: float|null, area: float, size: array{float, float, float}, closed: bool,
     *     inside_out: bool, flat: int, doubts: list<string>} mm, mm², mm³
     */
    public function toArray(): array
    {
        return [
            'triangles' => $this->triangles,
            'volume' => $this->encloses() === null ? null : round($this->encloses(), 3),
            'area' => round($this->area, 3),
            'size' => array_map(static fn (float $side): float => round($side, 4), $this->size()),
            'closed' => $this->closed,
            'inside_out' => $this->closed && $this->volume < 0,
            'flat' => $this->flat,
            'doubts' => $this->doubts(),
        ];
    }
}
