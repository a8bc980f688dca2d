<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Machine\Placing\Turned;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Quantity\Quantity;

/**
 * Proposals for the back wall of a cabinet or bay: mains apart from signals, thick leads short, or as little wall as it takes.
 * Room for hands and heat around each: common practice, no source.
 *
 * @phpstan-type Item array{key: string, w: float, h: float, depth: float, mains: bool, signal: bool}
 */
final class Arranger
{
    /** Room around a part, for hands and leads, mm. */
    private const HANDS = 20.0;

    /** Room around what turns power into heat, mm. */
    private const HEAT = 40.0;

    /** Between the rows of mains and the rest, mm. */
    private const APART = 30.0;

    /** Pieces in one cabinet. */
    private const MOST = 200;

    private readonly Build $build;

    private readonly Layout $layout;

    private readonly Body $host;

    private readonly Wall $wall;

    /** @var array<string, array{float, float, float}> piece, "relay" or "relay#2" → its sides, the longest first */
    private array $sides = [];

    /** @var list<string> needs that stand there and have no size, or stand in a row of their own */
    public array $without = [];

    /**
     * @throws CannotArrange
     */
    public function __construct(Survey $survey, string $place)
    {
        $this->build = $survey->build;
        $this->layout = Layout::of($survey);
        $host = $this->layout->bodies[$place] ?? null;
        if ($host === null) {
            throw new CannotArrange(
                isset($this->build->places[$place])
                    ? Layout::called($this->build, $this->build->places[$place]).
                        ' has no place itself: '.
                        ($this->layout->waiting[$place] ?? 'say where it is').
                        '.'
                    : "There is no place \"{$place}\".",
            );
        }
        if (! $host->encloses) {
            throw new CannotArrange("{$host->label} encloses nothing: a cabinet or a zone can be arranged.");
        }
        $this->host = $host;
        $this->wall = Wall::of($host->box);
        foreach ($this->holds() as $need) {
            $fitted = $this->build->fitted($need);
            if ($fitted === null || $fitted->need->seat !== null) {
                continue;
            }
            $own = $this->placeOf($need);
            $sides = array_map(
                static fn ($q): ?float => $q?->in('mm'),
                Layout::sizes($this->build, $own ?? new Place($need, $need)),
            );
            if ($own?->row !== null || in_array(null, $sides, true)) {
                if (array_filter($fitted->part->family->sides()) !== []) {
                    $this->without[] = $need;
                }

                continue;
            }
            /** @var list<float> $sides */
            rsort($sides);
            for ($piece = 1; $piece <= $fitted->need->quantity; $piece++) {
                $this->sides[$piece === 1 ? $need : "{$need}#{$piece}"] = [$sides[0], $sides[1], $sides[2]];
            }
            if (count($this->sides) > self::MOST) {
                throw new CannotArrange(
                    'More than '.self::MOST." pieces stand in {$host->label}: arrange them in zones of their own.",
                );
            }
        }
        if ($this->sides === []) {
            throw new CannotArrange(
                "Nothing with a known size stands in {$host->label}: say under Heat what stands in it, and give sizes.",
            );
        }
        foreach ($this->sides as $need => $sides) {
            $wall = $this->wall();
            rsort($wall);
            if ($sides[2] > $host->box->size($this->wall->away) || $sides[0] > $wall[0] || $sides[1] > $wall[1]) {
                throw new CannotArrange(
                    sprintf(
                        '%s, %.0f × %.0f × %.0f mm, does not go into %s, %.0f × %.0f × %.0f mm: a larger one, or put it elsewhere.',
                        $this->build->roleOf(self::need((string) $need)),
                        ...[...$sides, $host->label, $host->box->size(0), $host->box->size(1), $host->box->size(2)],
                    ),
                );
            }
        }
    }

    /**
     * @return list<string> needs that stand in it, by its zone or by their places
     */
    private function holds(): array
    {
        $needs = [];
        foreach ($this->build->zones as $zone) {
            if (
                $zone->ref === $this->host->place->zone ||
                ($zone->box !== null && $zone->box === $this->host->place->need)
            ) {
                array_push($needs, ...$zone->holds);
            }
        }
        foreach ($this->build->places as $place) {
            if ($place->need !== null && $place->on === $this->host->place->ref) {
                $needs[] = $place->need;
            }
        }

        return array_values(array_unique($needs));
    }

    /** The need of a piece. */
    private static function need(string $piece): string
    {
        return explode('#', $piece, 2)[0];
    }

    private function placeOf(string $piece): ?Place
    {
        [$need, $number] = explode('#', $piece, 2) + [1 => '1'];
        foreach ($this->build->places as $place) {
            if ($place->need === $need && ($place->piece ?? 1) === (int) $number) {
                return $place;
            }
        }

        return null;
    }

    /**
     * @return array{float, float} width and height of the wall, mm
     */
    public function wall(): array
    {
        return [$this->host->box->size($this->wall->across), $this->host->box->size($this->wall->up)];
    }

    /**
     * @return list<Arrangement> those that go in, none when there is no room
     */
    public function proposals(): array
    {
        [$width, $height] = $this->wall();
        $mains = array_filter(array_keys($this->sides), fn (string|int $n): bool => $this->isMains((string) $n));
        $rest = array_values(
            array_diff(array_map(strval(...), array_keys($this->sides)), array_map(strval(...), $mains)),
        );
        $found = [];
        foreach (
            [
                [
                    'Mains apart',
                    'What carries mains in the upper rows, signals below, a gap between.',
                    $this->apart(array_map(strval(...), array_values($mains)), $rest, $width, $height),
                ],
                [
                    'Thick leads short',
                    'Each beside what it shares the thickest leads with.',
                    Packing::rows($this->items($this->byLeads()), $width, $height) ??
                    Packing::inOrder($this->items($this->byLeads()), $width, $height),
                ],
                [
                    'Least wall',
                    'As near to each other as hands and heat allow.',
                    Packing::dense($this->items(array_map(strval(...), array_keys($this->sides))), $width, $height),
                ],
            ] as [$name, $why, $laid]
        ) {
            if ($laid !== null) {
                $found[] = $this->arrangement($name, $why, $laid);
            }
        }

        return $found;
    }

    /**
     * @param  list<string>  $mains
     * @param  list<string>  $rest
     * @return list<array{key: string, x: float, y: float, w: float, h: float, turned: bool}>|null
     */
    private function apart(array $mains, array $rest, float $width, float $height): ?array
    {
        $below = Packing::dense($this->items($rest), $width, $height);
        $above = Packing::dense($this->items($mains), $width, $height);
        if ($below === null || $above === null) {
            return null;
        }
        $gap = $below === [] || $above === [] ? 0.0 : self::APART;
        $high = Packing::used($above);
        if (Packing::used($below) + $gap + $high > $height) {
            return null;
        }
        // Hung from the top, so that what is left is the gap between.
        foreach ($above as $i => $one) {
            $above[$i]['y'] = $height - $one['y'] - $one['h'];
        }

        return [...$below, ...$above];
    }

    /** Whether mains is joined to it. */
    private function isMains(string $piece): bool
    {
        foreach ($this->build->fitted(self::need($piece))->part->ports ?? [] as $port) {
            if ($port->mains && $port->kind !== PortKind::Earth) {
                return true;
            }
        }

        return false;
    }

    /**
     * What is heaviest wired first, then always the one that shares the most copper with those laid already.
     *
     * @return list<string>
     */
    private function byLeads(): array
    {
        $copper = [];
        foreach ($this->build->leads as $lead) {
            [$a, $b] = [$lead->from->need, $lead->to->need];
            $size = ($lead->conductor->size?->in('mm²') ?? 0.5) * $lead->conductor->parallel;
            $copper[$a][$b] = $copper[$b][$a] = ($copper[$a][$b] ?? 0.0) + $size;
        }
        $left = array_map(strval(...), array_keys($this->sides));
        $order = [];
        while ($left !== []) {
            $score = [];
            foreach ($left as $need) {
                $to = array_intersect_key($copper[self::need($need)] ?? [], array_flip($order === [] ? $left : $order));
                $score[$need] = array_sum($to);
            }
            arsort($score);
            $next = (string) array_key_first($score);
            $order[] = $next;
            $left = array_values(array_diff($left, [$next]));
        }

        return $order;
    }

    /** Room wanted around one of them. */
    private function room(string $piece): float
    {
        $fitted = $this->build->fitted(self::need($piece));
        $own = $this->placeOf($piece)?->free?->in('mm') ?? 0.0;
        $hot =
            $fitted?->part->can(Ability::Converts) === true || $fitted?->part->can(Ability::WarmsByAllItTakes) === true;

        return max($own, $hot ? self::HEAT : self::HANDS);
    }

    /**
     * Flat on the wall, the longest side across; half the room it wants on every side.
     *
     * @param  list<string>  $needs
     * @return list<array{key: string, w: float, h: float}>
     */
    private function items(array $needs): array
    {
        [$wall] = $this->wall();

        return array_map(function (string $need) use ($wall): array {
            [$a, $b] = $this->sides[$need];
            $room = $this->room($need);
            [$w, $h] = $a + $room > $wall ? [$b, $a] : [$a, $b];

            return ['key' => $need, 'w' => $w + $room, 'h' => $h + $room];
        }, $needs);
    }

    /**
     * @param  list<array{key: string, x: float, y: float, w: float, h: float, turned: bool}>  $laid
     */
    private function arrangement(string $name, string $why, array $laid): Arrangement
    {
        $places = $middles = $rects = [];
        foreach ($laid as $one) {
            $need = $one['key'];
            $room = $this->room($need);
            $place = $this->placeOf($need);
            [$x, $z] = [$one['x'] + $room / 2, $one['y'] + $room / 2];
            $middles[$need] = [$x + ($one['w'] - $room) / 2, $z + ($one['h'] - $room) / 2];
            $rects[] = [round($x, 2), round($z, 2), round($one['w'] - $room, 2), round($one['h'] - $room, 2)];
            $places[] = [
                'ref' => $place->ref ?? $this->free(strtr($need, '#', '-')),
                'need' => self::need($need),
                ...str_contains($need, '#') ? ['piece' => (int) explode('#', $need, 2)[1]] : [],
                'on' => $this->host->place->ref,
                Along::words()[$this->wall->across] => ['at' => 'low', 'by' => self::mm($x)],
                Along::words()[$this->wall->away] => ['at' => $this->wall->isLow() ? 'low' : 'high'],
                Along::words()[$this->wall->up] => ['at' => 'low', 'by' => self::mm($z)],
                'turned' => $this->turned($need, $one['w'] - $room, $one['h'] - $room)->value,
            ];
        }
        $leads = $thick = 0.0;
        foreach ($this->build->leads as $lead) {
            [$a, $b] = [$middles[$lead->from->need] ?? null, $middles[$lead->to->need] ?? null];
            if ($a !== null && $b !== null) {
                $way = abs($a[0] - $b[0]) + abs($a[1] - $b[1]);
                $leads += $way;
                $thick += $way * ($lead->conductor->size?->in('mm²') ?? 0.5) * $lead->conductor->parallel;
            }
        }

        return new Arrangement(
            $name,
            $why,
            $places,
            $rects,
            Packing::used($laid),
            $leads,
            $thick,
            $this->nearest($laid),
        );
    }

    /** A name no other place has. */
    private function free(string $ref): string
    {
        $free = mb_substr($ref, 0, 60);
        for ($i = 2; isset($this->build->places[$free]); $i++) {
            $free = mb_substr($ref, 0, 56)."-{$i}";
        }

        return $free;
    }

    private static function mm(float $mm): string
    {
        return Quantity::of(round($mm, 1), 'mm')->text();
    }

    /**
     * @param  list<array{key: string, x: float, y: float, w: float, h: float, turned: bool}>  $laid
     */
    private function nearest(array $laid): ?float
    {
        $least = null;
        foreach ($laid as $a) {
            foreach ($laid as $b) {
                if (! $this->isMains($a['key']) || $this->isMains($b['key']) || ! $this->isSignal($b['key'])) {
                    continue;
                }
                [$ra, $rb] = [$this->room($a['key']) / 2, $this->room($b['key']) / 2];
                $across = max($a['x'] + $ra - ($b['x'] + $b['w'] - $rb), $b['x'] + $rb - ($a['x'] + $a['w'] - $ra));
                $up = max($a['y'] + $ra - ($b['y'] + $b['h'] - $rb), $b['y'] + $rb - ($a['y'] + $a['h'] - $ra));
                $least = min($least ?? INF, hypot(max(0.0, $across), max(0.0, $up)));
            }
        }

        return $least;
    }

    private function isSignal(string $piece): bool
    {
        foreach ($this->build->fitted(self::need($piece))->part->ports ?? [] as $port) {
            if ($port->kind === PortKind::Signal) {
                return true;
            }
        }

        return false;
    }

    /** How it is turned so that it is so wide and so high on the wall. */
    private function turned(string $need, float $width, float $height): Turned
    {
        $sides = array_map(
            static fn ($q): float => $q?->in('mm') ?? 0.0,
            Layout::sizes($this->build, $this->placeOf($need) ?? new Place($need, self::need($need))),
        );
        foreach (Turned::cases() as $turned) {
            $order = $turned->order();
            if (
                abs($sides[$order[$this->wall->across]] - $width) < 1e-6 &&
                abs($sides[$order[$this->wall->up]] - $height) < 1e-6
            ) {
                return $turned;
            }
        }

        return Turned::LengthWidthHeight;
    }
}
