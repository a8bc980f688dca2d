<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

/**
 * What readings of an alignment come to: figures with their uncertainty, how they were worked, what to do, and what to draw.
 *
 * @phpstan-type Figure array{key: string, label: string, value: float, unit: string, uncertainty: float|null}
 * @phpstan-type Line array{name: string, points: list<array{float, float}>}
 */
final readonly class Outcome
{
    /**
     * @param  list<Figure>  $figures  what it comes to first
     * @param  list<string>  $working
     * @param  list<string>  $says  what to do
     * @param  list<Line>  $lines  to be drawn: x in mm or degrees, y in mm
     * @param  float|null  $off  what is held against the limit, in mm
     * @param  float|null  $limit  in mm
     * @param  float  $doubt  how far what is held against it may be off, in mm
     */
    public function __construct(
        public array $figures,
        public array $working,
        public array $says = [],
        public array $lines = [],
        public ?float $off = null,
        public ?float $limit = null,
        public float $doubt = 0.0,
    ) {
    }

    /**
     * @return Figure
     */
    public static function figure(
        string $key,
        string $label,
        float $value,
        string $unit,
        ?float $uncertainty = null,
    ): array {
        return compact('key', 'label', 'value', 'unit', 'uncertainty');
    }

    /** Within the limit by more than it may be off, it holds; nearer, it is tight; beyond, it fails; with no limit, nothing is said. */
    public function verdict(): ?string
    {
        return match (true) {
            $this->limit === null || $this->off === null => null,
            $this->off > $this->limit => 'fails',
            $this->off + $this->doubt > $this->limit => 'tight',
            default => 'holds',
        };
    }

    public function value(string $key): ?float
    {
        return array_column($this->figures, 'value', 'key')[$key] ?? null;
    }

    /**
     * @return array{figures: list<Figure>, working: list<string>, says: list<string>, lines: list<Line>, limit: float|null,
     *     off: float|null, verdict: string|null}
     */
    public function toArray(): array
    {
        return [
            'figures' => array_map(
                static fn (array $f): array => [
                    'value' => round($f['value'], 6),
                    'uncertainty' => $f['uncertainty'] === null ? null : round($f['uncertainty'], 6),
                ] + $f,
                $this->figures,
            ),
            'working' => $this->working,
            'says' => $this->says,
            'lines' => $this->lines,
            'limit' => $this->limit,
            'off' => $this->off === null ? null : round($this->off, 6),
            'verdict' => $this->verdict(),
        ];
    }
}
