<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Views;

use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\AsDrawn;
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Box;
use Magpie\Core\Layout\Envelope;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Meeting;
use Magpie\Core\Layout\Meetings;
use Magpie\Core\Layout\Reaches;
use Magpie\Core\Layout\Rules\DuctsApart;
use Magpie\Core\Layout\Rules\InOutline;
use Magpie\Core\Layout\Rules\LeadReaches;
use Magpie\Core\Layout\Rules\MeetsNothing;
use Magpie\Core\Layout\Rules\WarmNeighbour;
use Magpie\Core\Layout\Surroundings;
use Magpie\Core\Layout\Sweeps;
use Magpie\Core\Layout\Warmth;
use Magpie\Core\Layout\Ways;

/**
 * The machine as a picture is made of it: bodies with what carries them, what they meet, what has no place yet, and the ways of
 * leads. Lengths in mm, x to the right, y to the back, z up.
 *
 * @phpstan-type Point array{float, float, float}
 */
final readonly class Picture
{
    public function __construct(private Survey $survey)
    {
    }

    /**
     * @return array{outline: Point|null, envelope: array{low: Point, high: Point}|null,
     *     axes: list<array{ref: string, name: string, along: string, travel: float|null}>,
     *     bodies: list<array{key: string, place: string, need: string|null, label: string, kind: string, low: Point, high: Point,
     *         carried: list<string>, on: string|null, solid: bool, encloses: bool, decided: bool}>,
     *     waiting: list<array{place: string, label: string, why: string}>,
     *     tray: list<array{need: string, role: string, pieces: int, sized: bool, leads: list<string>, checks: list<string>}>,
     *     surroundings: list<array{what: string, low: Point, high: Point}>,
     *     meetings: list<array{one: string, other: string, gap: float|null, wanted: float,
     *         where: list<array{axis: string, from: float, to: float}>}>,
     *     reaches: list<array{place: string, side: string, for: string, low: Point, high: Point, blocked: list<string>}>,
     *     sheets: list<array{place: string, name: string, width: float, height: float}>,
     *     ways: list<array{lead: string, label: string, mains: bool, typed: string|null, bare: float|null, cut: string|null,
     *         parts: list<array{what: string, mm: float}>, points: list<Point>, waits: string|null, loose: list<string>,
     *         passes: list<string>}>}
     */
    public function toArray(): array
    {
        $build = $this->survey->build;
        $layout = Layout::of($this->survey);
        $envelope = $layout->bodies === [] ? null : Envelope::of($this->survey);
        $axes = [];
        foreach ($build->axes as $ref => $axis) {
            $travel = $layout->travel[(string) $ref];
            $axes[] = [
                'ref' => (string) $ref,
                'name' => $axis->name,
                'along' => $axis->along->value,
                'travel' => $travel === null ? null : round($travel, 2),
            ];
        }

        return [
            'outline' => $layout->outline?->high,
            'envelope' => $envelope === null ? null : self::box($envelope->box),
            'axes' => $axes,
            'bodies' => array_map(self::body(...), array_values($layout->bodies)),
            'waiting' => array_map(
                static fn (string|int $ref, string $why): array => [
                    'place' => (string) $ref,
                    'label' => Layout::called($build, $build->places[$ref]),
                    'why' => $why,
                ],
                array_keys($layout->waiting),
                array_values($layout->waiting),
            ),
            'tray' => $this->tray($layout),
            'surroundings' => array_map(
                static fn (string $what, Box $box): array => ['what' => $what, ...self::box($box)],
                array_keys($around = Surroundings::of($this->survey)),
                array_values($around),
            ),
            'meetings' => array_values(
                array_filter(
                    array_map(self::meeting(...), Meetings::of($this->survey)->all),
                    static fn (array $m): bool => $m['gap'] === null || $m['gap'] < $m['wanted'],
                ),
            ),
            'reaches' => $this->reaches($layout),
            'sheets' => array_map(
                static fn (Sheet $sheet): array => [
                    'place' => $sheet->place,
                    'name' => $sheet->name,
                    'width' => round($sheet->width, 1),
                    'height' => round($sheet->height, 1),
                ],
                Sheet::all($this->survey),
            ),
            'ways' => $this->ways(),
        ];
    }

    /**
     * @return array{low: Point, high: Point}
     */
    private static function box(Box $box): array
    {
        $round = static fn (array $p): array => [round($p[0], 2), round($p[1], 2), round($p[2], 2)];

        return ['low' => $round($box->low), 'high' => $round($box->high)];
    }

    /**
     * @return array{key: string, place: string, need: string|null, label: string, kind: string, low: Point, high: Point,
     *     carried: list<string>, on: string|null, solid: bool, encloses: bool, decided: bool}
     */
    private static function body(Body $body): array
    {
        return [
            'key' => $body->key,
            'place' => $body->place->ref,
            'need' => $body->place->need,
            'label' => $body->label,
            'kind' => $body->kind,
            ...self::box($body->box),
            'carried' => $body->carried,
            'on' => $body->stands[0] ?? null,
            'solid' => $body->solid,
            'encloses' => $body->encloses,
            'decided' => $body->place->evidence === null,
        ];
    }

    /**
     * @return list<array{need: string, role: string, pieces: int, sized: bool, leads: list<string>, checks: list<string>}>
     */
    private function tray(Layout $layout): array
    {
        $build = $this->survey->build;
        $ends = [];
        foreach ($build->runs() as $ref => [$from, $to]) {
            $ends[$from->need][] = $ends[$to->need][] = (string) $ref;
        }
        $rows = [];
        foreach ($layout->tray($build) as ['need' => $need, 'pieces' => $pieces]) {
            $fitted = $build->fitted($need->ref);
            $part = $fitted?->part;
            $leads = array_values(array_unique($ends[$need->ref] ?? []));
            $checks = [
                new MeetsNothing,
                new InOutline,
                ...$leads === [] ? [] : [new LeadReaches, new DuctsApart],
                ...$fitted !== null && Warmth::concerns($fitted) ? [new WarmNeighbour] : [],
            ];
            $sized = array_map(
                static fn (?string $key): bool => $key !== null && $part?->spec($key)?->nominal() !== null,
                $part?->family->sides() ?? [null],
            );
            $rows[] = [
                'need' => $need->ref,
                'role' => $need->role,
                'pieces' => $pieces,
                'sized' => ! in_array(false, $sized, true),
                'leads' => $leads,
                'checks' => array_map(static fn (Check $check): string => $check->card()->title, $checks),
            ];
        }

        return $rows;
    }

    /**
     * @return array{one: string, other: string, gap: float|null, wanted: float, where: list<array{axis: string, from: float, to: float}>}
     */
    private static function meeting(Meeting $meeting): array
    {
        $where = [];
        foreach ($meeting->where as $axis => [$from, $to]) {
            $where[] = ['axis' => (string) $axis, 'from' => round($from, 2), 'to' => round($to, 2)];
        }

        return [
            'one' => $meeting->one->key,
            'other' => $meeting->other->key,
            'gap' => $meeting->gap === null ? null : round($meeting->gap, 2),
            'wanted' => Meetings::wanted($meeting->one, $meeting->other),
            'where' => $where,
        ];
    }

    /**
     * @return list<array{place: string, side: string, for: string, low: Point, high: Point, blocked: list<string>}>
     */
    private function reaches(Layout $layout): array
    {
        $rows = [];
        foreach ($layout->bodies as $body) {
            $blocked = $body->place->reach === [] ? [] : Reaches::of($this->survey)->blocked($body);
            foreach ($body->key === $body->place->ref ? $body->place->reach : [] as $reach) {
                $in = [];
                foreach ($blocked as [$one, $others]) {
                    $in = $one === $reach ? array_map(static fn (Body $b): string => $b->label, $others) : $in;
                }
                $rows[] = [
                    'place' => $body->key,
                    'side' => $reach->side->value,
                    'for' => $reach->for,
                    ...self::box(Reaches::room($body, $reach)),
                    'blocked' => $in,
                ];
            }
        }

        return $rows;
    }

    /**
     * @return list<array{lead: string, label: string, mains: bool, typed: string|null, bare: float|null, cut: string|null,
     *     parts: list<array{what: string, mm: float}>, points: list<Point>, waits: string|null, loose: list<string>, passes: list<string>}>
     */
    private function ways(): array
    {
        $rows = [];
        foreach (Ways::of($this->survey)->all as $ref => $way) {
            $lead = $this->survey->build->leads[$ref];
            $length = $way->length();
            $bare = $way->bare();
            $rows[] = [
                'lead' => (string) $ref,
                'label' => $lead->label(),
                'mains' => $this->survey->build->isMains($lead),
                'typed' => $lead->isDrawn ? null : $lead->length?->text(),
                'bare' => $bare === null ? null : round($bare, 1),
                'cut' => $length === null ? null : AsDrawn::cut($length)->text(),
                'parts' => array_map(
                    static fn (array $p): array => ['what' => $p['what'], 'mm' => round($p['mm'], 1)],
                    $way->all(),
                ),
                'points' => $way->points,
                'waits' => $way->waits,
                'loose' => $way->loose,
                'passes' => Sweeps::passed($this->survey, $way),
            ];
        }

        return $rows;
    }
}
