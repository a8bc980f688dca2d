<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Site;
use Magpie\Core\Machine\ZoneKind;

/** What is looked at before a job, by what the machine is, and what its state forbids (RU-15, RU-17). Common practice, no source. */
final class StartList
{
    private const WOOD = '/\b(wood|timber|ply|plywood|mdf|card|paper|oak|ash|pine|spruce|birch|beech|maple|walnut)\b/i';

    private const SOFT = '/\b(PLA|PVA|TPU)\b/i';

    private const ANYWHERE = ['Power-up passed as far as this job needs; no lamp or message out of the ordinary.'];

    private const PEN = ['Sheet flat and held, tool in and at its height.', 'Nothing in the way of its whole travel.'];

    private const SPINDLE = [
        'Cold, it has run up: a minute slow, then faster in three or four steps over ten minutes, so that its bearings and '.
            'length settle before the origin is set.',
        'Origin set, and touched off with this cutter.',
        'Collet clean and tight, cutter far enough in.',
        'Clamps tight, and below the path of the cutter and the collet nut.',
        'Guard on, goggles and ear defenders on.',
        'Extraction on; for metal, air or mist on.',
        'First pass in the air, a hand at the stop.',
    ];

    private const TORCH = [
        'Consumables looked at, air dry and at its pressure.',
        'Work clamp on bare metal of the sheet.',
        'Shade for you, a screen for others, extraction on.',
        'Nothing that burns under the cut; fire watch for half an hour after the last.',
    ];

    private const NOZZLE = [
        'Nozzle wiped, bed washed and at its height.',
        'Filament left on the reel against what the job needs.',
        'Fans turn: the one of the hot end, of the part, of the board.',
        'Somebody in the house, smoke alarm above.',
    ];

    /** What has to be at hand, by what can hurt. */
    private const AT_HAND = [
        Hazard::Spindle->value => ['eyes_and_ears', 'dust_extraction'],
        Hazard::Torch->value => ['shade', 'screen', 'bare_floor', 'fire_watch', 'extinguisher'],
        Hazard::Heat->value => ['smoke_alarm'],
    ];

    /** Air in which what is soft early has to be let out, °C. */
    private const WARM = 40.0;

    /**
     * @param  int  $dangers  open findings of danger
     * @return array{looks: list<string>, blocks: list<string>}
     */
    public static function of(Build $build, string $material = '', int $dangers = 0): array
    {
        $hazards = [];
        $lays = false;
        foreach ($build->allFitted() as $fitted) {
            $hazards[$fitted->part->family->hazard()->value ?? ''] = true;
            $lays = $lays || $fitted->part->spec('place')?->choice() === 'hot end';
        }
        $spins = isset($hazards[Hazard::Spindle->value]);
        $burns = isset($hazards[Hazard::Torch->value]);
        $blocks = [
            ...$dangers === 0 ? [] : [$dangers.($dangers === 1 ? ' danger is' : ' dangers are').' open under Fit: not to be powered.'],
            ...$burns && preg_match(self::WOOD, $material) === 1 ? ["{$material} under a torch burns."] : [],
            ...$lays && preg_match(self::SOFT, $material) === 1 ? self::tooWarm($build, $material) : [],
            ...self::faults($build),
            ...self::notAtHand($build, $hazards),
        ];

        return [
            'looks' => [
                ...self::ANYWHERE,
                ...$spins ? self::SPINDLE : [],
                ...$burns ? self::TORCH : [],
                ...$lays ? self::NOZZLE : [],
                ...$spins || $burns || $lays ? [] : self::PEN,
            ],
            'blocks' => array_values(array_unique($blocks)),
        ];
    }

    /**
     * @return list<string>
     */
    private static function tooWarm(Build $build, string $material): array
    {
        $blocks = [];
        foreach ($build->zones as $zone) {
            $air = $zone->temperature?->in('°C');
            $isShut = in_array($zone->kind, [ZoneKind::Chamber, ZoneKind::Enclosure], true);
            if ($isShut && $air !== null && $air > self::WARM) {
                $blocks[] = sprintf(
                    '%s softens at about 60 °C, and %s gets %.0f °C warm: open its top and door first.',
                    $material,
                    $zone->name,
                    $air,
                );
            }
        }

        return $blocks;
    }

    /**
     * @return list<string>
     */
    private static function faults(Build $build): array
    {
        $blocks = [];
        foreach ($build->faults as $fault) {
            if ($fault->forbidsPower()) {
                $blocks[] = "Open danger: {$fault->what}.";
            } elseif (
                $fault->isOpen() &&
                $fault->need !== null &&
                $build->fitted($fault->need)?->part->spec('job') !== null
            ) {
                $blocks[] = "{$build->roleOf($fault->need)} has an open fault: {$fault->what}.";
            }
        }

        return $blocks;
    }

    /**
     * @param  array<string, true>  $hazards
     * @return list<string>
     */
    private static function notAtHand(Build $build, array $hazards): array
    {
        $asked = array_merge(...array_values(array_intersect_key(self::AT_HAND, $hazards)));
        $missing = array_filter($asked, static fn (string $p): bool => ($build->site->ready[$p] ?? false) !== true);

        return array_map(
            static fn (string $p): string => Site::PRECAUTIONS[$p].': not ticked as at hand.',
            array_values($missing),
        );
    }
}
