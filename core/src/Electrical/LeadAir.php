<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Zone;
use Magpie\Core\Machine\ZoneKind;
use Magpie\Core\Quantity\Quantity;

/** The air a lead lies in: the room's, or that of the warmest place it runs to. */
final readonly class LeadAir
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

    /** Of a lead that would run from one need to another. */
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

    /** In °C, for what is only computed with; where nothing is known, that of the tables. */
    public function degrees(): float
    {
        return $this->known?->in('°C') ?? (float) self::STANDARD;
    }
}
