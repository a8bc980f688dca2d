<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\External;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Views\Gltf;
use Magpie\Core\Layout\Views\Sheet;
use Magpie\Core\Layout\Views\Svg;
use Magpie\Core\Layout\Views\View;
use Magpie\Core\Machine\Build;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is taken away, read again by the libraries gltf-validator and dxf-parser (npm) and by libxml. */
final class DrawingPeerTest extends TestCase
{
    /**
     * @return array<string, mixed>
     */
    private static function reread(string $kind, string $content): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'drawing');
        file_put_contents($file, $content);
        exec(
            'node '.escapeshellarg(__DIR__.'/reread.mjs')." {$kind} ".escapeshellarg($file).' 2>&1',
            $said,
            $status,
        );
        unlink($file);
        self::assertSame(0, $status, implode("\n", $said));

        return json_decode(implode("\n", $said), true, 512, JSON_THROW_ON_ERROR);
    }

    private static function linnet(): Survey
    {
        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'));

        return new Survey(Rules::inspector()->stands($build));
    }

    public function test_the_whole_is_sound_gltf_with_a_node_for_each_body_of_its_size(): void
    {
        $survey = self::linnet();
        $gltf = Gltf::of($survey);
        $says = self::reread('gltf', json_encode($gltf, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES));
        self::assertSame([0, 0], [$says['errors'], $says['warnings']], (string) json_encode($says['messages']));
        $bodies = array_values(Layout::of($survey)->bodies);
        self::assertCount(count($bodies), $gltf['nodes']);
        // One box of twelve triangles for each kind of body, shared.
        self::assertSame(12 * count($gltf['meshes']), $says['info']['totalTriangleCount']);
        foreach ($bodies as $i => $body) {
            self::assertEqualsWithDelta($body->box->middle(2) / 1000, $gltf['nodes'][$i]['translation'][1], 1e-6);
            self::assertEqualsWithDelta($body->box->size(1) / 1000, $gltf['nodes'][$i]['scale'][2], 1e-6);
        }
        $none = Gltf::of(new Survey(self::plate([])));
        self::assertSame(0, self::reread('gltf', json_encode($none, JSON_THROW_ON_ERROR))['errors']);
    }

    /**
     * @param  list<array<string, mixed>>  $places
     */
    private static function plate(array $places): Build
    {
        return BuildFile::build(
            Examples::file(
                [
                    Examples::part('plate', 'plate', ['width' => '200 mm', 'depth' => '120 mm', 'thickness' => '8 mm']),
                    Examples::part('motor', 'stepper_motor', [
                        'frame' => '17',
                        'body_length' => '42.3 mm',
                        'body_width' => '42.3 mm',
                        'body_height' => '40 mm',
                    ]),
                    Examples::part('board', 'controller_board', [
                        'body_length' => '100 mm',
                        'body_width' => '60 mm',
                        'body_height' => '20 mm',
                    ]),
                ],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'places' => $places,
                ],
            ),
        );
    }

    /** NEMA ICS 16 (from memory): a frame 17 has four holes 31 mm apart around a pilot of 22 mm. */
    public function test_a_sheet_read_again_has_its_outline_feet_and_holes_where_they_belong(): void
    {
        $on = static fn (string $ref, string $x, string $y): array => [
            'ref' => $ref,
            'need' => $ref,
            'on' => 'plate',
            'x' => ['at' => 'low', 'by' => $x],
            'y' => ['at' => 'low', 'by' => $y],
            'z' => ['at' => 'after'],
        ];
        $survey = new Survey(
            self::plate([
                [
                    'ref' => 'plate',
                    'need' => 'plate',
                    'x' => ['at' => 'low', 'by' => '500 mm'],
                    'y' => ['at' => 'low', 'by' => '300 mm'],
                    'z' => ['at' => 'low'],
                ],
                $on('motor', '10 mm', '20 mm'),
                $on('board', '80 mm', '30 mm'),
            ]),
        );
        $sheet = Sheet::of($survey, 'plate');
        self::assertNotNull($sheet);
        self::assertNull(Sheet::of($survey, 'motor'));
        $says = self::reread('dxf', $sheet->dxf());
        self::assertEqualsCanonicalizing(['OUTLINE', 'FOOT', 'MARK', 'DRILL', 'CUT'], $says['layers']);
        $of = static fn (string $layer, string $type): array => array_values(
            array_filter(
                $says['entities'],
                static fn (array $e): bool => $e['layer'] === $layer && $e['type'] === $type,
            ),
        );
        self::assertCount(4, $of('OUTLINE', 'LINE'));
        self::assertEquals(
            [['x' => 200, 'y' => 0, 'z' => 0], ['x' => 200, 'y' => 120, 'z' => 0]],
            [$of('OUTLINE', 'LINE')[1]['from'], $of('OUTLINE', 'LINE')[1]['to']],
        );
        self::assertCount(8, $of('FOOT', 'LINE'));
        $middle = [10 + 42.3 / 2, 20 + 42.3 / 2];
        $holes = array_map(
            static fn (array $e): array => [round($e['center']['x'], 3), round($e['center']['y'], 3)],
            $of('DRILL', 'CIRCLE'),
        );
        $expected = [];
        foreach ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as [$a, $b]) {
            $expected[] = [round($middle[0] + $a * 15.5, 3), round($middle[1] + $b * 15.5, 3)];
        }
        self::assertEqualsCanonicalizing($expected, $holes);
        self::assertEqualsWithDelta(11, $of('CUT', 'CIRCLE')[0]['radius'], 1e-3);
        self::assertSame(['Motor', 'Board'], array_map(ucfirst(...), array_column($of('MARK', 'TEXT'), 'text')));
        $svg = simplexml_load_string($sheet->svg());
        self::assertNotFalse($svg);
        // At 1:1 a millimetre of the view is one of the paper.
        [, , $width] = explode(' ', (string) $svg['viewBox']);
        self::assertSame("{$width}mm", (string) $svg['width']);
    }

    /**
     * @return iterable<string, array{View}>
     */
    public static function views(): iterable
    {
        foreach (View::cases() as $view) {
            yield $view->value => [$view];
        }
    }

    #[DataProvider('views')]
    public function test_a_view_is_sound_xml_with_a_shape_for_each_body_to_scale(View $view): void
    {
        $survey = self::linnet();
        $layout = Layout::of($survey);
        $svg = simplexml_load_string(Svg::of($survey, $view));
        self::assertNotFalse($svg);
        $moving = array_filter($layout->bodies, static fn ($b): bool => $b->carried !== []);
        self::assertCount(1 + count($layout->bodies) + count($moving), $svg->rect);
        [$across, $up] = $view->directions();
        self::assertNotNull($layout->outline);
        self::assertEqualsWithDelta($layout->outline->size($across), (float) $svg->rect[0]['width'], 0.01);
        self::assertEqualsWithDelta($layout->outline->size($up), (float) $svg->rect[0]['height'], 0.01);
        // What was typed by a person is text, and nothing else.
        $evil = self::plate([
            [
                'ref' => 'a',
                'name' => '<script>alert(1)</script>&"',
                'size' => ['length' => '900 mm', 'width' => '900 mm', 'height' => '900 mm'],
                'x' => ['at' => 'low'],
                'y' => ['at' => 'low'],
                'z' => ['at' => 'low'],
            ],
        ]);
        $text = Svg::of(new Survey($evil), $view);
        self::assertStringNotContainsString('<script', $text);
        self::assertNotFalse(simplexml_load_string($text));
    }
}
