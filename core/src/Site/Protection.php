<?php

declare(strict_types=1);

namespace Magpie\Core\Site;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Site;

/** What protects people and house where something burns, cuts or arcs, by what is fitted. Common practice, no source. */
final class Protection
{
    /** What each hazard asks for, of Site::PRECAUTIONS. */
    public const ASKED = [
        'torch' => ['shade', 'screen', 'bare_floor', 'fire_watch', 'extinguisher'],
        'spindle' => ['eyes_and_ears', 'dust_extraction'],
        'heat' => ['smoke_alarm', 'extinguisher'],
    ];

    /** Of these, what is bought; the rest is done. */
    private const BOUGHT = ['shade', 'screen', 'extinguisher', 'eyes_and_ears', 'dust_extraction', 'smoke_alarm'];

    /**
     * Hazards there are, with the needs they come from; an arc may be meant before anything of it is fitted.
     *
     * @return array<string, list<string>>
     */
    public static function hazards(Build $build): array
    {
        $there = [];
        foreach ($build->fittedThat(Ability::Hurts) as $ref => $fitted) {
            $there[$fitted->part->family->hazard()->value ?? ''][] = (string) $ref;
        }
        if ($build->brief->process === Process::Plasma) {
            $there[Hazard::Torch->value] ??= [];
        }

        return array_intersect_key($there, self::ASKED);
    }

    /**
     * What is to be bought besides parts, since nobody says that it is at hand.
     *
     * @return list<string>
     */
    public static function toBuy(Build $build): array
    {
        $wanted = [];
        foreach (array_keys(self::hazards($build)) as $hazard) {
            foreach (self::ASKED[$hazard] as $one) {
                if (in_array($one, self::BOUGHT, true) && ($build->site->ready[$one] ?? false) !== true) {
                    $wanted[$one] = Site::PRECAUTIONS[$one];
                }
            }
        }
        if ([...$build->fittedThat(Ability::Hurts)] !== [] && [...$build->fittedThat(Ability::Stops)] === []) {
            $wanted['stop'] = 'A stop that takes the power from all that moves, cuts or heats';
        }
        if (self::isOnMains($build) && $build->site->residualCurrentDevice !== true) {
            $wanted['rcd'] = 'Residual-current protection on its circuit; a licensed electrician decides';
        }

        return array_values($wanted);
    }

    private static function isOnMains(Build $build): bool
    {
        foreach ($build->allFitted() as $fitted) {
            foreach ($fitted->part->ports as $port) {
                if ($port->mains) {
                    return true;
                }
            }
        }

        return false;
    }
}
