<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Layout;

/** The whole as glTF 2.0: one box shared by all bodies, each a node of its own by name, metres, y up. */
final class Gltf
{
    /** Colours of what a body is, red, green, blue, opacity. */
    private const COLOURS = [
        'part' => [0.72, 0.75, 0.78, 1.0],
        'workpiece' => [0.82, 0.66, 0.42, 1.0],
        'duct' => [0.55, 0.62, 0.66, 0.6],
        'zone' => [0.4, 0.6, 0.9, 0.12],
        'other' => [0.6, 0.6, 0.6, 1.0],
    ];

    /**
     * @return array<string, mixed>
     */
    public static function of(Survey $survey): array
    {
        $bodies = array_values(Layout::of($survey)->bodies);
        $kinds = array_keys(self::COLOURS);
        [$positions, $normals, $indices] = self::cube();
        $binary = pack('g*', ...$positions).pack('g*', ...$normals).pack('v*', ...$indices);
        $scene = ['nodes' => array_keys($bodies), 'name' => $survey->build->plan->name];

        return [
            'asset' => ['version' => '2.0', 'generator' => 'Frugal Magpie'],
            'scene' => 0,
            'scenes' => [$bodies === [] ? ['name' => $scene['name']] : $scene],
        ] +
            ($bodies === []
                ? []
                : [
                    'nodes' => array_map(
                        static fn (Body $b): array => self::node($b, (int) array_search($b->kind, $kinds, true)),
                        $bodies,
                    ),
                    'meshes' => array_map(
                        static fn (int $i, string $kind): array => [
                            'name' => $kind,
                            'primitives' => [
                                ['attributes' => ['POSITION' => 0, 'NORMAL' => 1], 'indices' => 2, 'material' => $i],
                            ],
                        ],
                        array_keys($kinds),
                        $kinds,
                    ),
                    'materials' => array_map(
                        static fn (string $kind, array $colour): array => [
                            'name' => $kind,
                            'pbrMetallicRoughness' => [
                                'baseColorFactor' => $colour,
                                'metallicFactor' => 0.1,
                                'roughnessFactor' => 0.8,
                            ],
                        ] + ($colour[3] < 1 ? ['alphaMode' => 'BLEND'] : []),
                        $kinds,
                        array_values(self::COLOURS),
                    ),
                    'accessors' => [
                        [
                            'bufferView' => 0,
                            'componentType' => 5126,
                            'count' => 24,
                            'type' => 'VEC3',
                            'min' => [-0.5, -0.5, -0.5],
                            'max' => [0.5, 0.5, 0.5],
                        ],
                        ['bufferView' => 1, 'componentType' => 5126, 'count' => 24, 'type' => 'VEC3'],
                        ['bufferView' => 2, 'componentType' => 5123, 'count' => 36, 'type' => 'SCALAR'],
                    ],
                    'bufferViews' => [
                        ['buffer' => 0, 'byteOffset' => 0, 'byteLength' => 288, 'target' => 34962],
                        ['buffer' => 0, 'byteOffset' => 288, 'byteLength' => 288, 'target' => 34962],
                        ['buffer' => 0, 'byteOffset' => 576, 'byteLength' => 72, 'target' => 34963],
                    ],
                    'buffers' => [
                        [
                            'byteLength' => strlen($binary),
                            'uri' => 'data:application/octet-stream;base64,'.base64_encode($binary),
                        ],
                    ],
                ]);
    }

    /**
     * @return array<string, mixed>
     */
    private static function node(Body $body, int $mesh): array
    {
        [$x, $y, $z] = $body->box->centre();
        $m = static fn (float $mm): float => round($mm / 1000, 6);

        return [
            'name' => $body->label,
            'mesh' => $mesh,
            // z up becomes y up, and what is at the back goes away from whoever looks.
            'translation' => [$m($x), $m($z), $m(-$y)],
            'scale' => [$m($body->box->size(0)), $m($body->box->size(2)), $m($body->box->size(1))],
            'extras' => ['place' => $body->key, 'carried_by' => $body->carried],
        ];
    }

    /**
     * A cube of one, six faces of four corners.
     *
     * @return array{list<float>, list<float>, list<int>}
     */
    private static function cube(): array
    {
        $positions = $normals = $indices = [];
        foreach ([0, 1, 2] as $d) {
            foreach ([-1, 1] as $sign) {
                $first = intdiv(count($positions), 3);
                [$u, $v] = [($d + 1) % 3, ($d + 2) % 3];
                foreach ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as [$a, $b]) {
                    $corner = $normal = [0.0, 0.0, 0.0];
                    [$corner[$d], $corner[$u], $corner[$v]] = [$sign * 0.5, $a * 0.5, $b * 0.5];
                    $normal[$d] = (float) $sign;
                    array_push($positions, ...$corner);
                    array_push($normals, ...$normal);
                }
                // Counter-clockwise, seen from outside.
                array_push(
                    $indices,
                    ...array_map(
                        static fn (int $i): int => $first + $i,
                        $sign > 0 ? [0, 1, 2, 0, 2, 3] : [0, 2, 1, 0, 3, 2],
                    ),
                );
            }
        }

        return [$positions, $normals, $indices];
    }
}
