<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Bounds;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/**
 * One line of a family's spec sheet: its key, what it measures, the units a builder would use and what is plausible.
 */
final readonly class SpecField
{
    /** What a part may do without, so that nought is an answer; of size, mass and count it is none. */
    private const MAY_BE_NOUGHT = [
        Dimension::Voltage,
        Dimension::Current,
        Dimension::Power,
        Dimension::Force,
        Dimension::Torque,
        Dimension::Flow,
        Dimension::Pressure,
        Dimension::Time,
    ];

    /**
     * @param  list<string>  $choices  allowed values of a choice
     * @param  array{string, string}|null  $plausible  lowest and highest size anyone has seen, as texts in one
     * dimension
     * @param  string|null  $better  "more" or "less", where one of them is, whatever the build
     */
    private function __construct(
        public string $key,
        public string $label,
        public FieldKind $kind,
        public ?Dimension $dimension = null,
        public string $unit = '',
        public ?string $imperialUnit = null,
        public array $choices = [],
        private ?array $plausible = null,
        public string $help = '',
        public ?string $better = null,
    ) {
    }

    /** Between two parts that both do, the one with more of it is the better. */
    public function moreIsBetter(): self
    {
        return new self(...['better' => 'more'] + get_object_vars($this));
    }

    public function lessIsBetter(): self
    {
        return new self(...['better' => 'less'] + get_object_vars($this));
    }

    /**
     * @param  array{string, string}|null  $plausible
     */
    public static function quantity(
        string $key,
        string $label,
        Dimension $dimension,
        string $unit,
        ?array $plausible = null,
        string $help = '',
        ?string $imperial = null,
    ): self {
        return new self($key, $label, FieldKind::Quantity, $dimension, $unit, $imperial, [], $plausible, $help);
    }

    /**
     * @param  array{string, string}|null  $plausible
     */
    public static function range(
        string $key,
        string $label,
        Dimension $dimension,
        string $unit,
        ?array $plausible = null,
        string $help = '',
    ): self {
        return new self($key, $label, FieldKind::Range, $dimension, $unit, null, [], $plausible, $help);
    }

    /**
     * @param  list<string>  $choices
     */
    public static function choice(string $key, string $label, array $choices, string $help = ''): self
    {
        return new self($key, $label, FieldKind::Choice, choices: $choices, help: $help);
    }

    public static function flag(string $key, string $label, string $help = ''): self
    {
        return new self($key, $label, FieldKind::Flag, help: $help);
    }

    public static function note(string $key, string $label, string $help = ''): self
    {
        return new self($key, $label, FieldKind::Text, help: $help);
    }

    /**
     * How a sensor speaks, and to what it lifts its line by itself.
     *
     * @return list<self>
     */
    public static function signalOutput(): array
    {
        return [
            self::choice('output', 'Output', ['contact', 'sinking', 'sourcing', 'push-pull']),
            self::flag(
                'own_pull_up',
                'Pull-up of its own',
                'A resistor from its output to its own supply: a meter from the open output to common shows that supply.',
            ),
        ];
    }

    /** Shape of the teeth of belts and of what they run on, which pitch alone does not tell. */
    public static function toothProfile(): self
    {
        return self::choice(
            'profile',
            'Tooth profile',
            ['G', 'H', 'R', 'S', 'T', 'AT', 'inch'],
            'Curved teeth are G, H, R or S (ISO 13050), straight ones T or AT (ISO 17396), or of inch pitch (ISO 5296). '.
                'Of one pitch and two profiles, a belt rides on the edges of the teeth.',
        );
    }

    /**
     * Outer size and mass, which most bought units state.
     *
     * @return list<self>
     */
    public static function body(): array
    {
        return [
            self::quantity('body_length', 'Length', Dimension::Length, 'mm', ['1 mm', '3 m']),
            self::quantity('body_width', 'Width', Dimension::Length, 'mm', ['1 mm', '3 m']),
            self::quantity('body_height', 'Height', Dimension::Length, 'mm', ['1 mm', '3 m']),
            self::quantity('mass', 'Mass', Dimension::Mass, 'g', ['0.01 g', '200 kg'])->lessIsBetter(),
        ];
    }

    /**
     * What a contact or terminal takes of conductors and voltage.
     *
     * @return list<self>
     */
    public static function conductors(): array
    {
        return [
            self::quantity('wire_from', 'Thinnest conductor', Dimension::Area, 'mm²', ['0.03 mm²', '16 mm²']),
            self::quantity('wire_to', 'Thickest conductor', Dimension::Area, 'mm²', ['0.03 mm²', '50 mm²']),
            self::quantity('voltage_rating', 'Rated for', Dimension::Voltage, 'V', ['12 V', '1 kV']),
        ];
    }

    /** How many separate circuits go through a plug or a row of terminals. */
    public static function circuits(): self
    {
        return self::quantity(
            'circuits',
            'Circuits through it',
            Dimension::Ratio,
            '',
            ['1', '64'],
            'Each is out and back, and has a place of its own for leads to end at.',
        );
    }

    /**
     * @return array{Quantity, Quantity}|null lowest and highest size anyone has seen
     */
    public function plausible(): ?array
    {
        return $this->plausible === null ? null : $this->bounds($this->plausible);
    }

    /** The nearest size anyone has seen: an efficiency cannot be off by so much that it exceeds one. */
    public function nearest(Quantity $value): Quantity
    {
        $plausible = $this->plausible();
        if ($plausible === null) {
            return $value;
        }
        [$low, $high] = $plausible;

        return Quantity::min(Quantity::max($value, $low), $high)->to($value->unit->symbol);
    }

    /**
     * @param  array{string, string}  $plausible
     * @return array{Quantity, Quantity}
     */
    private function bounds(array $plausible): array
    {
        return array_map(static function (string $text): Quantity {
            [$size, $unit] = explode(' ', $text, 2) + [1 => ''];

            return Quantity::of($size, $unit);
        }, $plausible);
    }

    /**
     * Why this cannot be a size of it at all, or null when it can: nothing has no length, and a million times what
     * anyone has seen is no slip of a unit any more. Counts are held closer, since what they count is laid out one by
     * one. Sizes that are only unlikely are asked about instead, see doubt().
     */
    public function refusal(Quantity|Range $value): ?string
    {
        if ($value instanceof Range) {
            return $this->refusal($value->low) ?? $this->refusal($value->high);
        }
        if (in_array($this->dimension, [Dimension::Temperature, Dimension::TemperatureCoefficient], true)) {
            return Bounds::refusal($value);
        }
        if ($value->isBelow(Quantity::of(0, $value->unit->dimension->unit()))) {
            return "{$this->label} cannot be negative ({$value->text()}).";
        }
        if ($this->plausible === null) {
            return Bounds::refusal($value);
        }
        [$low, $high] = $this->bounds($this->plausible);
        $usual = "usual: {$low} to {$high}";
        if ($low->isPositive() && $value->isZero() && ! in_array($this->dimension, self::MAY_BE_NOUGHT, true)) {
            return "{$this->label} cannot be nought ({$usual}).";
        }
        $counted = $this->dimension === Dimension::Ratio && $this->unit === '';
        [$least, $most] = [$low->over($counted ? 10 : 1e6), $high->times($counted ? 10 : 1e6)];

        return $value->exceeds($most) || ($value->isPositive() && $value->isBelow($least))
            ? "{$this->label} cannot be {$value->text()}; from {$least} to {$most} can be taken ({$usual})."
            : Bounds::refusal($value);
    }

    /** The same of a size as it is typed; null, too, of what cannot be read: that is refused, not asked about. */
    public function question(string $typed): ?string
    {
        if ($this->dimension === null || $this->kind !== FieldKind::Quantity) {
            return null;
        }
        try {
            return $this->doubt(Quantity::parse($typed, $this->dimension, $this->unit));
        } catch (CannotReadQuantity) {
            return null;
        }
    }

    /** Why this size should be asked about before it is believed, or null when it is a usual one. */
    public function doubt(Quantity $value): ?string
    {
        if ($this->plausible === null || $this->dimension === null) {
            return null;
        }
        [$low, $high] = $this->bounds($this->plausible);

        return match (true) {
            $value->isBelow($low) => "{$this->label} of {$value} is unusually small (usual: {$low} to {$high}).",
            $value->exceeds($high) => "{$this->label} of {$value} is unusually large (usual: {$low} to {$high}).",
            default => null,
        };
    }
}
