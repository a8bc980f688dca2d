<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Machine\Setting;
use Magpie\Core\Machine\Stage;

/** One line of the settings audit: what the fitted parts ask for, and what the machine is set to. */
final readonly class SettingLine
{
    public const AGREES = 'agrees';

    public const DIFFERS = 'differs';

    public const OPEN = 'not read';

    /** So little off that it may have been measured. */
    public const NEAR = 'near';

    /** It differs, and what it is to be set to is decided: it has to be read back once more. */
    public const PLANNED = 'to be set';

    /** It was set as it should be, and has not been read back since. */
    public const MADE = 'set, not read back';

    /**
     * @param  string  $key  "axis.x.steps_per_mm"
     * @param  string  $kind  setting, link or temporary
     * @param  array{string, string}  $of  kind and ref of what it belongs to
     * @param  string|null  $wants  as it should be; null when the fitted parts do not say yet
     * @param  string  $why  what that follows from
     * @param  bool  $grave  wrong, it hurts or breaks something
     * @param  bool  $atMost  what it should be is the most it may be
     * @param  list<string>  $or  what would do as well
     * @param  list<Input>  $rests  what it should be rests on
     * @param  float  $near  the share it may be off where it was tuned by what was measured
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
        public array $or = [],
        public array $rests = [],
        public float $near = 0.0,
    ) {
    }

    public function state(): string
    {
        return match (true) {
            $this->set === null => self::OPEN,
            $this->set->done && ($this->set->value === null || $this->wants === null) => self::AGREES,
            $this->wants === null => self::OPEN,
            $this->set->value !== null && $this->suits($this->set->value) => self::AGREES,
            $this->near > 0 && $this->suits($this->set->value, $this->near) => self::NEAR,
            $this->suits($this->set->made) => self::MADE,
            $this->suits($this->set->planned) => self::PLANNED,
            $this->set->value === null => self::OPEN,
            default => self::DIFFERS,
        };
    }

    /** How far a build must be before it can be told: a link can be looked at, a setting is read from a running machine. */
    public function asked(): Stage
    {
        return $this->kind === 'link' ? Stage::Made : Stage::Powered;
    }

    /** How what it is set to is held against what it should be. */
    public function sense(): string
    {
        return match (true) {
            $this->atMost => 'at most',
            $this->or !== [] => 'one of',
            default => 'equal',
        };
    }

    private function suits(?string $value, float $off = SettingValue::SAME): bool
    {
        if ($value === null || $this->wants === null) {
            return false;
        }
        foreach ([$this->wants, ...$this->or] as $wanted) {
            if (SettingValue::suits($value, $wanted, $this->atMost, $off)) {
                return true;
            }
        }

        return false;
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
            'sense' => $this->sense(),
            'or' => $this->or,
            'why' => $this->why,
            'grave' => $this->grave,
            'state' => $this->state(),
            'setting' => $this->set?->ref,
            'planned' => $this->set?->planned,
            'made' => $this->set?->made,
            'value' => $this->set?->value,
            'done' => $this->set->done ?? false,
            'until' => $this->set?->until,
        ];
    }
}
