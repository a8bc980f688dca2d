<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware;

use Magpie\Core\Machine\Setting;

/** One line of the settings audit: what the fitted parts ask for, and what the machine is set to. */
final readonly class SettingLine
{
    public const AGREES = 'agrees';

    public const DIFFERS = 'differs';

    public const OPEN = 'not read';

    /**
     * @param  string  $key  "axis.x.steps_per_mm"
     * @param  string  $kind  setting, link or temporary
     * @param  array{string, string}  $of  kind and ref of what it belongs to
     * @param  string|null  $wants  as it should be; null when the fitted parts do not say yet
     * @param  string  $why  what that follows from
     * @param  bool  $grave  wrong, it hurts or breaks something
     */
    public function __construct(
        public string $key,
        public string $kind,
        public array $of,
        public string $label,
        public ?string $wants,
        public string $why,
        public bool $grave = false,
        public ?Setting $set = null,
    ) {
    }

    public function state(): string
    {
        if ($this->set?->value === null || $this->wants === null) {
            return $this->set?->done === true ? self::AGREES : self::OPEN;
        }

        return self::same($this->wants, $this->set->value) ? self::AGREES : self::DIFFERS;
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'key' => $this->key,
            'kind' => $this->kind,
            'of' => ['kind' => $this->of[0], 'ref' => $this->of[1]],
            'label' => $this->label,
            'wants' => $this->wants,
            'why' => $this->why,
            'grave' => $this->grave,
            'state' => $this->state(),
            'setting' => $this->set?->ref,
            'value' => $this->set?->value,
            'done' => $this->set->done ?? false,
            'until' => $this->set?->until,
        ];
    }

    /** Numbers agree within a thousandth of the larger, whatever stands after them; words letter by letter. */
    private static function same(string $wants, string $value): bool
    {
        $number = static fn (string $text): ?float => preg_match(
            '/^\s*(-?\d+(?:[.,]\d+)?)/',
            str_replace("\u{a0}", ' ', $text),
            $m,
        ) === 1
            ? (float) strtr($m[1], ',', '.')
            : null;
        [$a, $b] = [$number($wants), $number($value)];
        if ($a !== null && $b !== null) {
            return abs($a - $b) <= 0.001 * max(abs($a), abs($b));
        }

        return mb_strtolower(trim($wants)) === mb_strtolower(trim($value));
    }
}
