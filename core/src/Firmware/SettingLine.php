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

    /** It differs, and what it is to be set to is decided: it has to be read back once more. */
    public const PLANNED = 'to be set';

    /**
     * @param  string  $key  "axis.x.steps_per_mm"
     * @param  string  $kind  setting, link or temporary
     * @param  array{string, string}  $of  kind and ref of what it belongs to
     * @param  string|null  $wants  as it should be; null when the fitted parts do not say yet
     * @param  string  $why  what that follows from
     * @param  bool  $grave  wrong, it hurts or breaks something
     * @param  bool  $atMost  what it should be is the most it may be
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
        public bool $atMost = false,
    ) {
    }

    public function state(): string
    {
        if ($this->set?->value === null || $this->wants === null) {
            return $this->set?->done === true ? self::AGREES : self::OPEN;
        }

        return match (true) {
            SettingValue::suits($this->set->value, $this->wants, $this->atMost) => self::AGREES,
            $this->set->planned !== null && SettingValue::suits($this->set->planned, $this->wants, $this->atMost) => self::PLANNED,
            default => self::DIFFERS,
        };
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
            'planned' => $this->set?->planned,
            'value' => $this->set?->value,
            'done' => $this->set->done ?? false,
            'until' => $this->set?->until,
        ];
    }
}
