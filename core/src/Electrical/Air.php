<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Zone;
use Magpie\Core\Machine\ZoneKind;
use Magpie\Core\Quantity\Quantity;

/** The air a lead lies in or a part stands in: the room's, or that of the warmest place it runs to. */
final readonly class Air
{
    /** Air the ampacity tables of IEC 60204-1 are made for, where nothing is said of the room. */
    public const STANDARD = 40;

    /**
     * @param  Quantity|null  $known  null when nothing is said of the room
     * @param  Zone|null  $zone  that makes it warmer than the room
     * @param  Zone|null  $unknown  a closed place it runs to, whose air is not known
     */
    private function __construct(public ?Quantity $known, public ?Zone $zone, public ?Zone $unknown)
    {
    }

    public static function of(Build $build, Lead $lead): self
    {
        return self::between($build, $lead->from->need, $lead->to->need);
    }

    /** Of a part, or of a lead that would run from one need to another. */
    public static function between(Build $build, string ...$needs): self
    {
        $known = $build->site->ambient;
        $warmer = $unknown = null;
        foreach ($needs as $need) {
            $zone = $build->zoneOf($need);
            if ($zone === null) {
                continue;
            }
            if ($zone->temperature === null) {
                $unknown = in_array($zone->kind, [ZoneKind::Cabinet, ZoneKind::Chamber], true) ? $zone : $unknown;
            } elseif ($known === null || $zone->temperature->exceeds($known)) {
                [$known, $warmer] = [$zone->temperature, $zone];
            }
        }

        return new self($known, $warmer, $unknown);
    }

    /**
     * With what it rests on.
     *
     * @throws \Magpie\Core\Inspection\InputMissing where nothing is said of the room, nor of a warmer place
     */
    public function given(Inquiry $inquiry): Quantity
    {
        return $this->zone === null
            ? $inquiry->given('ambient temperature of the site', 'T_a', $this->known, Evidence::Measured, 'site/ambient')
            : $inquiry->given(
                "hottest air in {$this->zone->name}",
                'T_a',
                $this->zone->temperature,
                $this->zone->evidence,
                "zones/{$this->zone->ref}/temperature",
            );
    }

    /** Asks for the air of a closed place it runs to: the room's says nothing of it. */
    public function askFor(Inquiry $inquiry): void
    {
        if ($this->unknown !== null) {
            $inquiry->miss("hottest air in {$this->unknown->name}", "zones/{$this->unknown->ref}/temperature");
        }
    }

    /** In °C, for what is only computed with; where nothing is known, that of the tables. */
    public function degrees(): float
    {
        return $this->known?->in('°C') ?? (float) self::STANDARD;
    }
}
