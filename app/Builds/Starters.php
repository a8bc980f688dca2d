<?php

declare(strict_types=1);

namespace App\Builds;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;

/** Skeletons a build may begin with: places, parts to be chosen, ports, leads and axes of a kind of machine. */
final class Starters
{
    /** In the order they are offered, with what they are. */
    private const ALL = [
        'moving-bed-printer' => 'A bed that moves, two belts and a lift; drivers on the board.',
        'core-belt-printer' => 'A head on two belts, a lifting bed and a warm chamber, with a main stop.',
        'router' => 'Ball screws, a spindle on its own drive, a contactor and a main stop.',
        'mill-conversion' => 'Closed-loop motors on the three screws of a mill, with a main stop.',
        'plotter' => 'Two belts and a small supply.',
    ];

    /** The demo's builds, to look around in: nothing of them is real, and faults are planted in them. */
    private const DEMO = [
        'linnet' => 'The demo: a router being planned, with faults planted in it.',
        'dunlin' => 'The demo: a printer half built, with faults planted in it.',
        'plover' => 'The demo: a plotter, finished, with its whole history.',
    ];

    /**
     * @return list<array{key: string, name: string, kind: string, says: string, needs: int, leads: int}>
     */
    public static function all(): array
    {
        $all = [];
        foreach (self::ALL + self::DEMO as $key => $says) {
            $build = self::named($key);
            if ($build !== null) {
                $all[] = [
                    'key' => $key,
                    'name' => $build->plan->name,
                    'kind' => $build->plan->kind,
                    'says' => $says,
                    'needs' => count($build->needs),
                    'leads' => count($build->leads),
                ];
            }
        }

        return $all;
    }

    /** Null when there is none of that name. */
    public static function named(string $key): ?Build
    {
        $file = match (true) {
            isset(self::ALL[$key]) => "demo/starters/{$key}.json",
            isset(self::DEMO[$key]) => "demo/{$key}.json",
            default => null,
        };

        return $file === null ? null : BuildFile::read((string) file_get_contents(base_path($file)));
    }

    /**
     * A build of one's own, begun with a starter.
     *
     * @return array<string, mixed>|null as a build file has it
     */
    public static function begun(string $key, string $name, string $kind, string $currency): ?array
    {
        $build = self::named($key);
        if ($build === null) {
            return null;
        }
        $data = BuildFile::data($build);

        if (isset(self::DEMO[$key])) {
            // Its prices and its money are of its own currency.
            return ['build' => ['name' => $name] + (array) $data['build']] + $data;
        }

        return ['build' => ['name' => $name, 'kind' => $kind, 'currency' => $currency, 'stage' => 'planned']] + $data;
    }
}
