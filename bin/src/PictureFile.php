<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Views\Gltf;
use Magpie\Core\Layout\Views\Picture;
use Magpie\Core\Layout\Views\Positions;
use Magpie\Core\Layout\Views\Sheet;
use Magpie\Core\Layout\Views\Svg;
use Magpie\Core\Layout\Views\View;

/** Where everything sits in a build file, from the shell: docs/format/picture.md describes the shapes. */
final class PictureFile
{
    private const VERSION = 1;

    private const FORMATS = ['text', 'json', 'svg', 'gltf', 'csv', 'dxf'];

    private const USAGE = 'usage: bin/magpie picture FILE [--format text|json|svg|gltf|csv|dxf] [--view plan|front|side] [--of PLACE]';

    /**
     * 0 when it is drawn and nothing meets, 1 when something does, 2 when it cannot be read or there is no such view or sheet.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['format', 'view', 'of'], self::USAGE);
        $format = $options['format'] ?? 'text';
        $view = View::tryFrom($options['view'] ?? 'plan');
        if (! in_array($format, self::FORMATS, true) || $view === null) {
            throw new Failure(self::USAGE, 2);
        }
        $survey = new Survey(
            Rules::inspector()->stands(FromFile::read($file, $format, 'magpie_picture', self::VERSION)),
        );
        $picture = (new Picture($survey))->toArray();
        match ($format) {
            'json' => FromFile::print(['magpie_picture' => self::VERSION] + $picture),
            'svg' => print isset($options['of'])
                ? self::sheet($survey, $options['of'])->svg()
                : Svg::of($survey, $view),
            'dxf' => print self::sheet($survey, $options['of'] ?? '')->dxf(),
            'gltf' => print json_encode(Gltf::of($survey), JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES)."\n",
            'csv' => print Positions::csv($survey),
            default => print self::text($survey, $picture),
        };

        return array_filter($picture['meetings'], static fn (array $m): bool => ($m['gap'] ?? 0) < 0) === [] ? 0 : 1;
    }

    private static function sheet(Survey $survey, string $place): Sheet
    {
        return Sheet::of($survey, $place) ??
            throw new Failure(
                'say with --of which panel or cabinet: '.
                    (implode(', ', array_map(static fn (Sheet $s): string => $s->place, Sheet::all($survey))) ?:
                        'nothing stands on anything yet').
                    '.',
                2,
            );
    }

    /**
     * @param  array{outline: array{float, float, float}|null, bodies: list<array<string, mixed>>,
     *     waiting: list<array{place: string, label: string, why: string}>,
     *     tray: list<array{need: string, role: string, pieces: int, sized: bool, leads: list<string>}>,
     *     meetings: list<array{one: string, other: string, gap: float|null, wanted: float,
     *         where: list<array{axis: string, from: float, to: float}>}>,
     *     ways: list<array{lead: string, label: string, bare: float|null, cut: string|null, typed: string|null,
     *         waits: string|null}>}  $picture
     */
    private static function text(Survey $survey, array $picture): string
    {
        $text = sprintf(
            "%s: %d in their place, %d wait, %d in the tray\n",
            $survey->build->plan->name,
            count($picture['bodies']),
            count($picture['waiting']),
            count($picture['tray']),
        );
        foreach ($picture['waiting'] as $one) {
            $text .= "  waits  {$one['label']}: {$one['why']}\n";
        }
        foreach ($picture['tray'] as $one) {
            $text .= "  tray   {$one['role']}".($one['pieces'] > 1 ? ", {$one['pieces']} pieces" : '')."\n";
        }
        foreach ($picture['meetings'] as $meeting) {
            $where = array_map(
                static fn (array $w): string => sprintf('%s %.1f to %.1f mm', $w['axis'], $w['from'], $w['to']),
                $meeting['where'],
            );
            $text .= sprintf(
                "  %s %s and %s: %s%s\n",
                ($meeting['gap'] ?? 0) < 0 ? 'meets ' : 'near  ',
                $meeting['one'],
                $meeting['other'],
                $meeting['gap'] === null ? 'the travel is not known' : sprintf('%.2f mm', $meeting['gap']),
                $where === [] ? '' : ', at '.implode(', ', $where),
            );
        }
        foreach ($picture['ways'] as $way) {
            $text .= sprintf(
                "  %-6s %s\n",
                $way['lead'],
                $way['waits'] ??
                    sprintf(
                        '%.0f mm, cut to %s%s',
                        $way['bare'] ?? 0.0,
                        $way['cut'] ?? '',
                        $way['typed'] === null ? '' : "; {$way['typed']} typed",
                    ),
            );
        }

        return $text."\nBoxes, not shapes: a planning aid. Measure before you drill.\n";
    }
}
