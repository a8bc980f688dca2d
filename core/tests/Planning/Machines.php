<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;

/** Machines nobody would draw, with joints, boxes, axes and leads between whatever there is. */
final class Machines
{
    private const FAMILIES = [
        'extrusion',
        'plate',
        'printed_part',
        'cabinet',
        'panel',
        'linear_rail',
        'bearing',
        'drive_screw',
        'stepper_motor',
        'coupling',
        'belt',
        'spindle',
        'hot_end',
        'cable_chain',
    ];

    public static function random(int $seed): Build
    {
        mt_srand($seed);
        $parts = $needs = [];
        $add = static function (string $ref, string $family, int $quantity, array $specs = []) use (
            &$parts,
            &$needs,
        ): void {
            $parts[] = ['ref' => $ref, 'family' => $family, 'name' => "{$family} {$ref}", 'specs' => $specs];
            $needs[] = [
                'ref' => $ref,
                'role' => "Role {$ref}",
                'family' => $family,
                'quantity' => $quantity,
                'candidates' => [$ref],
                'choice' => $ref,
            ];
        };
        $count = mt_rand(3, 25);
        for ($i = 0; $i < $count; $i++) {
            $add("n{$i}", self::FAMILIES[mt_rand(0, count(self::FAMILIES) - 1)], mt_rand(1, 4));
        }
        $add('screw', 'screw', mt_rand(1, 60), ['thread' => 'M4', 'length' => '12 mm', 'head' => 'cap']);
        $add('slot', 'nut', mt_rand(1, 40), ['thread' => 'M4', 'kind' => 'slot nut']);
        $add('insert', 'insert', mt_rand(1, 40), ['thread' => 'M4']);
        $add('inlet', 'mains_inlet', 1);
        $add('psu', 'power_supply', 1);
        for ($i = 0; $i < mt_rand(1, 5); $i++) {
            $add("fan{$i}", 'fan', 1);
        }
        $refs = array_column($needs, 'ref');
        $any = static fn (): string => 'n'.mt_rand(0, $count - 1);
        $mates = [];
        for ($i = 0; $i < mt_rand(0, 18); $i++) {
            [$one, $other] = [$any(), $any()];
            if ($one !== $other) {
                $mates[] = [
                    'ref' => "j{$i}",
                    'kind' => ['joint', 'cover', 'mount'][mt_rand(0, 2)],
                    'between' => [$one, $other],
                    'screws' => mt_rand(0, 1) === 0
                            ? []
                            : [
                                [
                                    'screw' => 'screw',
                                    'count' => mt_rand(1, 9),
                                    'into' => ['tapped', 'slot_nut', 'insert'][mt_rand(0, 2)],
                                ],
                            ],
                ];
            }
        }
        $leads = [
            ['ref' => 'W-earth', 'from' => 'inlet.earth', 'to' => 'psu.earth'],
            ['ref' => 'W-mains', 'from' => 'inlet.out', 'to' => 'psu.mains'],
        ];
        foreach (array_filter($refs, static fn (string $r): bool => str_starts_with($r, 'fan')) as $fan) {
            $leads[] = ['ref' => "W-{$fan}", 'from' => 'psu.out', 'to' => "{$fan}.power"];
        }
        $zones = [];
        $held = $refs;
        shuffle($held);
        for ($i = 0; $i < mt_rand(0, 2); $i++) {
            $zones[] = [
                'ref' => "z{$i}",
                'name' => "Zone {$i}",
                'kind' => 'cabinet',
                'holds' => array_splice($held, 0, 3),
            ];
        }
        $rails = array_values(array_filter($needs, static fn (array $n): bool => $n['family'] === 'linear_rail'));
        $motors = array_column(
            array_filter($needs, static fn (array $n): bool => $n['family'] === 'stepper_motor'),
            'ref',
        );
        $axes =
            $rails === []
                ? []
                : [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => $rails[0]['ref'],
                        'drive' => ['motors' => array_values($motors)],
                    ],
                ];

        return BuildFile::build(
            [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => "Machine {$seed}", 'kind' => 'sample', 'currency' => 'GBP'],
                'parts' => $parts,
                'needs' => $needs,
                'mates' => $mates,
                'leads' => $leads,
                'zones' => $zones,
                'axes' => $axes,
            ],
            kept: true,
        );
    }
}
