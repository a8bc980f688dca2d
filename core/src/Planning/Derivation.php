<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Reaches;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Mate;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\ScrewStack;
use Magpie\Core\Machine\Setting;
use Magpie\Core\Machine\ThreadIn;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Reference\Fasteners;

/**
 * The steps of assembly that follow from the model: a step for each joint, each part that stands in none, each lead, each
 * pair of rails that is aligned, the settings of each board, the test of the earth and each cover. Every piece goes in at
 * one step, and every lead is made at one. In an order in which nothing is closed in before it is in: inserts before what is
 * screwed into them, a box before what stands in it, guides before drives, alignment before what hangs on it, a lead after both its
 * ends and its chain, mains last, the test of the earth before the covers.
 *
 * Hours are those of a practised builder by kind of work: common practice, no source.
 */
final class Derivation
{
    public const SECTIONS = [
        'Frame',
        'Guides',
        'Drives',
        'Tool',
        'Electrics',
        'Wiring',
        'Before it is closed',
        'Covers',
    ];

    private const FRAME = 0;

    private const GUIDES = 1;

    private const DRIVES = 2;

    private const TOOL = 3;

    private const ELECTRICS = 4;

    private const WIRING = 5;

    private const TESTS = 6;

    private const COVERS = 7;

    /** How early a part belongs, by what it does; the first that fits. */
    private const RANKS = [
        self::GUIDES => [Ability::Rolls, Ability::HasLead],
        self::DRIVES => [Ability::Drives, Ability::JoinsShafts, Ability::CarriesBelt, Ability::RunsOnTeeth],
        self::TOOL => [
            Ability::Spins,
            Ability::OnHead,
            Ability::Melts,
            Ability::CarriesPrints,
            Ability::Heats,
            Ability::SensesHeat,
            Ability::TakesHeat,
        ],
        self::ELECTRICS => [Ability::LeadsMove],
    ];

    /** Of the frame, its members first, then what is put on them; plates and all else last. */
    private const LATE = [Ability::Slotted, Ability::Printed, Ability::Encloses];

    /** What makes a section harder, by the key of a step or its caution. */
    private const HARD = [
        'mains' => 'mains, for somebody practised',
        'align/' => 'guides aligned to hundredths',
        'inserts/' => 'inserts melted in straight',
        'nuts/' => 'nuts that must lie in before ends close',
        'lead/' => 'leads made and crimped',
        'settings/' => 'settings read back',
    ];

    /** @var array<string, StepDraft> by key */
    private array $drafts = [];

    /** @var array<string, string> need → key of the step it goes in at */
    private array $placed = [];

    /** @var array<string, int> pieces of each need that no step has taken yet */
    private array $left = [];

    /** @var array<string, int> screws and nuts that joints want and the list does not have */
    public readonly array $short;

    /** @var list<StepDraft> in the order they are done */
    public readonly array $steps;

    /** @var list<array{need: string, role: string, pieces: int, why: string}> what goes in at no step */
    public readonly array $unplaced;

    /** @var list<string> keys of steps that wait for one another */
    public readonly array $circle;

    public function __construct(private readonly Build $build)
    {
        foreach ($build->needs as $need) {
            $this->left[$need->ref] = $need->quantity;
        }
        $short = [];
        $mates = $this->matesInOrder();
        foreach ($mates as $mate) {
            $short = $this->join($mate, $short);
        }
        foreach ($build->needs as $need) {
            $fitted = $build->fitted($need->ref);
            if ($fitted !== null && ! isset($this->placed[$need->ref]) && ! self::isApart($fitted)) {
                $this->fit($fitted);
            }
        }
        $this->joined($mates);
        $this->laidIn($mates);
        $this->boxes();
        foreach ($build->axes as $axis) {
            $this->align($axis);
        }
        foreach ($build->leads as $lead) {
            $this->lead($lead);
        }
        $this->settings();
        $this->tests();
        $this->covers();
        $this->closesOff();
        $this->short = $short;
        [$this->steps, $this->circle] = $this->inOrder();
        $this->unplaced = $this->unplaced();
    }

    /** What goes in where a hand or a key has to reach something else: that is done before. */
    private function closesOff(): void
    {
        if ($this->build->places === []) {
            return;
        }
        $survey = new Survey($this->build);
        foreach (Layout::of($survey)->bodies as $body) {
            foreach ($body->place->reach === [] ? [] : Reaches::of($survey)->blocked($body) as [$reach, $others]) {
                foreach ($others as $other) {
                    $step = $this->placed[$other->place->need ?? ''] ?? null;
                    if ($step !== null) {
                        $this->drafts[$step] = $this->drafts[$step]->noting(
                            "Before: {$reach->for} at {$body->label} ({$reach->side->value}); no room is left for it once this is in.",
                        );
                    }
                }
            }
        }
    }

    private static function isApart(Fitted $fitted): bool
    {
        return $fitted->part->canAny(Ability::NotFitted, Ability::Fastens) ||
            $fitted->part->family->trade() === Trade::Workshop;
    }

    /** What closes something in, by its family or by what it is called. */
    private function isCover(string $need): bool
    {
        $fitted = $this->build->fitted($need);
        if ($fitted === null || ! in_array($fitted->part->family->trade(), [Trade::Mechanical, Trade::Site], true)) {
            return false;
        }
        $called = "{$fitted->need->role} {$fitted->part->name}";

        return $fitted->part->can(Ability::Covers) ||
            preg_match('/\b(cover|lid|door|window|side panel|panels?)s?\b/i', $called) === 1;
    }

    private function can(string $need, Ability ...$abilities): bool
    {
        return $this->build->fitted($need)?->part->canAny(...$abilities) === true;
    }

    private function rankOf(string $need): int
    {
        if ($this->isCover($need)) {
            return self::COVERS;
        }
        $part = $this->build->fitted($need)?->part;
        if ($part === null) {
            return self::FRAME;
        }
        foreach (self::RANKS as $rank => $abilities) {
            if ($part->canAny(...$abilities)) {
                return $rank;
            }
        }
        $family = $part->family;

        return match (true) {
            $family->trade() === Trade::Electrical, $family->trade() === Trade::Supply => self::ELECTRICS,
            $family->trade() === Trade::Thermal => self::TOOL,
            default => self::FRAME,
        };
    }

    private function rankOfMate(Mate $mate): int
    {
        return max($this->rankOf($mate->between[0]), $this->rankOf($mate->between[1]));
    }

    /** A member of the frame goes in where it meets its like, not where a rail or a bed is put on it. */
    private function takes(Mate $mate, string $need): bool
    {
        $other = $mate->between[$mate->between[0] === $need ? 1 : 0];

        return match (true) {
            $this->isCover($other) && ! $this->isCover($need) => false,
            $this->can($need, Ability::Slotted) => $this->can($other, Ability::Slotted, Ability::Printed),
            default => true,
        };
    }

    /**
     * @return list<Mate> those of the frame first
     */
    private function matesInOrder(): array
    {
        $mates = array_values($this->build->mates);
        $late = fn (Mate $mate): int => (int) array_sum(
            array_map(fn (string $need): int => $this->lateness($need), $mate->between),
        );
        usort(
            $mates,
            fn (Mate $a, Mate $b): int => [$this->rankOfMate($a), $late($a), $a->ref] <=> [
                $this->rankOfMate($b),
                $late($b),
                $b->ref,
            ],
        );

        return $mates;
    }

    private function lateness(string $need): int
    {
        foreach (self::LATE as $late => $ability) {
            if ($this->can($need, $ability)) {
                return $late;
            }
        }

        return count(self::LATE);
    }

    /** Pieces of a need, as many as are left of it at most; what is taken is gone. */
    private function take(string $need, int $pieces): int
    {
        $taken = min($pieces, $this->left[$need] ?? 0);
        $this->left[$need] = ($this->left[$need] ?? 0) - $taken;

        return $taken;
    }

    /**
     * @param  array<string, int>  $short
     * @return array<string, int>
     */
    private function join(Mate $mate, array $short): array
    {
        $key = "join/{$mate->ref}";
        $uses = $tools = $notes = $after = [];
        $rank = $this->rankOfMate($mate);
        foreach ($mate->between as $need) {
            if (! isset($this->placed[$need]) && $this->build->fitted($need) !== null && $this->takes($mate, $need)) {
                $uses[$need] = $this->take($need, PHP_INT_MAX);
                $this->placed[$need] = $key;
            }
        }
        $hours = 0.1;
        foreach ($mate->screws as $i => $stack) {
            $screw = $stack->screw === null ? null : $this->build->fitted($stack->screw);
            if ($screw !== null && $stack->screw !== null) {
                $taken = $this->take($stack->screw, $stack->count);
                $uses[$stack->screw] = ($uses[$stack->screw] ?? 0) + $taken;
                if ($taken < $stack->count) {
                    $short[$stack->screw] = ($short[$stack->screw] ?? 0) + $stack->count - $taken;
                }
            }
            [$held, $insert] = $this->held($mate, $i, $stack, $screw);
            if ($insert !== null) {
                $after[] = $insert;
            }
            foreach ($held as $need => $pieces) {
                $uses[$need] = ($uses[$need] ?? 0) + $pieces;
            }
            [$tool, $says] = self::tightened($stack, $screw);
            $tools = $tool === null ? $tools : [...$tools, $tool];
            $notes[] = $says;
            $hours += $stack->count / 60;
        }
        $this->drafts[$key] = new StepDraft(
            $key,
            $rank,
            ucfirst($mate->kind).
                ": {$this->build->roleOf($mate->between[0])} to {$this->build->roleOf($mate->between[1])}",
            array_filter($uses),
            $after,
            array_values(array_unique($tools)),
            [],
            array_values(array_filter($notes)),
            null,
            $hours,
        );

        return $short;
    }

    /**
     * Nuts that go in with a joint, and the step that melts its inserts in before.
     *
     * @return array{array<string, int>, string|null}
     */
    private function held(Mate $mate, int $index, ScrewStack $stack, ?Fitted $screw): array
    {
        $thread = $screw?->part->spec('thread')?->value;
        if ($stack->into === null || $stack->into === ThreadIn::Tapped || ! is_string($thread)) {
            return [[], null];
        }
        $wanted = $stack->count;
        $held = [];
        foreach ($this->build->fittedThat(Ability::TakesScrew) as $ref => $fitted) {
            $kind = $fitted->part->can(Ability::MeltedIn) ? 'heat-set insert' : $fitted->part->spec('kind')?->value;
            $fits = match ($stack->into) {
                ThreadIn::SlotNut => $kind === 'slot nut',
                ThreadIn::Insert => $kind === 'heat-set insert',
                default => $kind !== 'slot nut' && $kind !== 'heat-set insert',
            };
            if ($fits && $fitted->part->spec('thread')?->value === $thread) {
                $taken = $this->take((string) $ref, $wanted);
                $held += $taken > 0 ? [(string) $ref => $taken] : [];
                $wanted -= $taken;
            }
        }
        if ($stack->into !== ThreadIn::Insert || $held === []) {
            return [$held, null];
        }
        $key = "inserts/{$mate->ref}/{$index}";
        $into = $this->build->roleOf($mate->between[1]);
        $this->drafts[$key] = new StepDraft(
            $key,
            self::FRAME,
            "Melt {$stack->count} inserts into {$into}",
            $held,
            [],
            ['soldering iron with insert tips'],
            ['hot', 'fumes'],
            ['Straight, flush or a hair below; try one on a fit piece first.'],
            null,
            0.1 + $stack->count * 0.025,
        );

        return [[], $key];
    }

    /**
     * @return array{string|null, string} the tool, and how it is tightened
     */
    private static function tightened(ScrewStack $stack, ?Fitted $screw): array
    {
        $thread = $screw?->part->spec('thread')?->value;
        if (! is_string($thread) || $screw === null) {
            return [null, ''];
        }
        $head = $screw->part->spec('head')?->value;
        $key = Fasteners::key($thread, is_string($head) ? $head : 'cap');
        $length = $screw->part->spec('length')?->nominal();
        $torque = Fasteners::torque($thread, $stack->material->value ?? 'steel');
        $says = Crosswise::says($stack->count, $torque);

        return [
            $key === null ? null : "key {$key}",
            "{$stack->count} × {$thread}".
            ($length === null ? '' : " × {$length->in('mm')}").
            ($says === '' ? '' : ": {$says}").
            '.',
        ];
    }

    private function fit(Fitted $fitted): void
    {
        $need = $fitted->need;
        $key = "fit/{$need->ref}";
        $pieces = $this->take($need->ref, PHP_INT_MAX);
        $this->placed[$need->ref] = $key;
        $this->drafts[$key] = new StepDraft(
            $key,
            $this->rankOf($need->ref),
            'Fit '.($pieces > 1 ? "{$pieces} × " : '').$need->role,
            [$need->ref => $pieces],
            [],
            [],
            [],
            [],
            null,
            0.15 + 0.03 * min(20, $pieces),
        );
    }

    /**
     * Slot nuts that slide in from the end of a profile lie in it before a joint closes that end.
     *
     * @param  list<Mate>  $mates
     */
    private function laidIn(array $mates): void
    {
        foreach ($mates as $mate) {
            $profile =
                array_values(
                    array_filter($mate->between, fn (string $need): bool => $this->can($need, Ability::Slotted)),
                )[0] ?? null;
            if ($profile === null || $this->closes($mate, $profile)) {
                continue;
            }
            $closing = array_filter($mates, fn (Mate $other): bool => $this->closes($other, $profile));
            $nuts = array_keys(
                array_filter(
                    $this->drafts["join/{$mate->ref}"]->uses,
                    fn (string $need): bool => $this->can($need, Ability::TakesScrew),
                    ARRAY_FILTER_USE_KEY,
                ),
            );
            foreach ($closing === [] ? [] : $mate->screws as $i => $stack) {
                if ($stack->into !== ThreadIn::SlotNut || $nuts === []) {
                    continue;
                }
                $key = "nuts/{$mate->ref}/{$i}";
                $thread = $this->build
                    ->fitted($stack->screw ?? '')
                    ?->part->spec('thread')
                    ?->choice();
                $this->drafts[$key] = new StepDraft(
                    $key,
                    self::FRAME,
                    "Lay {$stack->count} ".
                        ($thread === null ? '' : "{$thread} ").
                        "slot nuts into {$this->build->roleOf($profile)} before its ends are closed",
                    [],
                    [],
                    [],
                    [],
                    [
                        'For: '.lcfirst($this->drafts["join/{$mate->ref}"]->title).'.',
                        'Nuts that turn in from the front may come later.',
                    ],
                    null,
                    0.03 + $stack->count * 0.005,
                    [],
                    $nuts,
                );
                $this->waits("join/{$mate->ref}", $key);
                foreach ($closing as $other) {
                    $this->waits("join/{$other->ref}", $key);
                }
            }
        }
    }

    /** Whether a joint closes the end of a profile: with another profile, or by what it is called. */
    private function closes(Mate $mate, string $profile): bool
    {
        $others = array_values(array_diff($mate->between, [$profile]));

        return in_array($profile, $mate->between, true) &&
            ($others === [] ||
                $this->can($others[0], Ability::Slotted) ||
                preg_match('/\b(corner|gusset|bracket|end)\b/i', "{$mate->kind} {$this->build->roleOf($others[0])}") ===
                    1);
    }

    /**
     * A joint comes after both its parts are there, wherever they went in.
     *
     * @param  list<Mate>  $mates
     */
    private function joined(array $mates): void
    {
        foreach ($mates as $mate) {
            foreach ($mate->between as $need) {
                $this->waits("join/{$mate->ref}", $this->placed[$need] ?? null);
            }
        }
    }

    /** One step comes after another, unless that one waits for it already. */
    private function waits(string $key, ?string $for): void
    {
        if ($for !== null && $for !== $key && isset($this->drafts[$for]) && ! $this->reaches($for, $key)) {
            $this->drafts[$key] = $this->drafts[$key]->coming([...$this->drafts[$key]->after, $for]);
        }
    }

    /** Whether a step waits, through others, for another. */
    private function reaches(string $from, string $to): bool
    {
        $been = [];
        $queue = [$from];
        while ($queue !== []) {
            $key = array_pop($queue);
            if ($key === $to) {
                return true;
            }
            if (! isset($been[$key])) {
                $been[$key] = true;
                array_push($queue, ...$this->drafts[$key]->after ?? []);
            }
        }

        return false;
    }

    /** What stands in a box comes after the box; what sits in another part after that; a part of an axis after its beam. */
    private function boxes(): void
    {
        $after = [];
        foreach ($this->build->zones as $zone) {
            foreach ($zone->box === null ? [] : $zone->holds as $need) {
                $after[$need][] = $zone->box;
            }
        }
        foreach ($this->build->needs as $need) {
            if ($need->host() !== null) {
                $after[$need->ref][] = $need->host();
            }
        }
        foreach ($after as $need => $hosts) {
            foreach ($hosts as $host) {
                $this->comes((string) $need, (string) $host);
            }
        }
    }

    /** A need goes in after another, where both have a step and those are two. */
    private function comes(string $need, string $after): void
    {
        [$own, $first] = [$this->placed[$need] ?? null, $this->placed[$after] ?? null];
        // What is joined earlier than its rank would have it is not pushed behind what needs it.
        if ($own !== null && $first !== null && $this->drafts[$first]->rank <= $this->drafts[$own]->rank) {
            $this->waits($own, $first);
        }
    }

    /** Guides are aligned before a drive, a belt or a tool hangs on them. */
    private function align(Axis $axis): void
    {
        $rail = $axis->rail ?? $axis->guides;
        $step = $rail === null ? null : $this->placed[$rail] ?? null;
        if ($rail === null || $step === null || $this->build->needs[$rail]->quantity < 2) {
            return;
        }
        $key = "align/{$axis->ref}";
        $this->drafts[$key] = new StepDraft(
            $key,
            self::GUIDES,
            "Align the guides of {$axis->name}, then tighten them for good",
            [],
            [$step],
            ['dial indicator'],
            [],
            [
                'The first guide to a straight edge, the second to the first, over the whole travel; then tighten from the middle outwards.',
            ],
            ['what' => "{$axis->name}: guides parallel over the travel", 'nominal' => '0 mm', 'tolerance' => '0.05 mm'],
            0.5,
        );
        foreach ([...$axis->drive->motors, $axis->drive->by, ...$axis->drive->carries] as $need) {
            $own = $need === null ? null : $this->placed[$need] ?? null;
            if ($own !== null && $this->drafts[$own]->rank > self::GUIDES) {
                $this->waits($own, $key);
            }
        }
    }

    private function lead(Lead $lead): void
    {
        $ends = [$lead->from->need, $lead->to->need, $lead->chain, $lead->protection];
        $after = [];
        foreach ($ends as $need) {
            $step = $need === null ? null : $this->placed[$need] ?? null;
            if ($step !== null && $this->drafts[$step]->rank < self::COVERS) {
                $after[] = $step;
            }
        }
        $mains = $this->build->isMains($lead);
        $notes = $tools = [];
        foreach ($lead->ends as $i => $end) {
            $at = ($i === 0 ? $lead->from : $lead->to)->text();
            if ($end->termination !== null) {
                $notes[] =
                    "{$at}: {$end->termination->value}".
                    ($end->contact === null ? '' : ", {$this->build->parts[$end->contact]->name}").
                    '.';
                $tools[] = match ($end->termination->value) {
                    'ferrule' => 'ferrule crimper',
                    'fork', 'ring', 'crimp', 'blade' => 'crimp tool',
                    'soldered' => 'soldering iron',
                    default => null,
                };
            }
        }
        $size = $lead->conductor->size;
        $key = "lead/{$lead->ref}";
        $this->drafts[$key] = new StepDraft(
            $key,
            self::WIRING,
            "Run {$this->build->leadInWords($lead)}".($size === null ? '' : ", {$size}"),
            [],
            array_values(array_unique($after)),
            array_values(array_unique(array_filter($tools))),
            $mains ? ['mains'] : [],
            $notes,
            null,
            $mains ? 0.4 : 0.25,
            [$lead->ref],
        );
    }

    private function settings(): void
    {
        $kinds = [];
        foreach ($this->build->settings as $setting) {
            if (! $setting->done) {
                $kinds[$setting->kind->value][] = $setting;
            }
        }
        foreach ($kinds as $kind => $settings) {
            $after = [];
            foreach ($settings as $setting) {
                foreach (explode('.', $setting->about) as $word) {
                    $after = isset($this->placed[$word]) ? [...$after, $this->placed[$word]] : $after;
                }
            }
            $key = "settings/{$kind}";
            $this->drafts[$key] = new StepDraft(
                $key,
                self::TESTS,
                $kind === 'temporary' ? 'Take out what is temporary' : 'Make and read back: '.strtr($kind, '_', ' '),
                [],
                array_values(array_unique($after)),
                [],
                [],
                array_map(
                    static fn (Setting $one): string => "{$one->about}: ".($one->value ?? 'to be said').'.',
                    $settings,
                ),
                null,
                0.1 + 0.03 * count($settings),
            );
        }
    }

    /** Mains leads go in last, and the earth is measured before anything closes over them. */
    private function tests(): void
    {
        $mains = $others = $earth = [];
        foreach ($this->build->leads as $lead) {
            if ($this->build->isMains($lead)) {
                $mains[] = "lead/{$lead->ref}";
                $earth +=
                    $this->build->port($lead->from)?->kind === PortKind::Earth ? ["lead/{$lead->ref}" => true] : [];
            } else {
                $others[] = "lead/{$lead->ref}";
            }
        }
        foreach ($mains as $key) {
            // Earth first, then what is live.
            $first = isset($earth[$key]) ? $others : [...$others, ...array_keys($earth)];
            $this->drafts[$key] = $this->drafts[$key]->coming([...$this->drafts[$key]->after, ...$first]);
        }
        if ($mains !== []) {
            $this->drafts['test/earth'] = new StepDraft(
                'test/earth',
                self::TESTS,
                'Measure the earth bond, unplugged, from the inlet to every metal part one can touch',
                [],
                $mains,
                ['multimeter or bond tester'],
                ['mains', 'earth'],
                ['Local code and a licensed electrician decide.'],
                ['what' => 'earth bond, the worst of them', 'nominal' => '0 Ω', 'tolerance' => '0.1 Ω'],
                0.3,
            );
        }
    }

    /** Covers come after all that they close in, and the tests that want it open. */
    private function covers(): void
    {
        $before = array_keys(array_filter($this->drafts, static fn (StepDraft $d): bool => $d->rank < self::COVERS));
        foreach ($this->drafts as $key => $draft) {
            if ($draft->rank === self::COVERS) {
                $this->drafts[$key] = $draft->coming([...$draft->after, ...self::ends($this->drafts, $before)]);
            }
        }
    }

    /**
     * Of some steps those that nothing else of them comes after: what waits for these waits for all.
     *
     * @param  array<string, StepDraft>  $drafts
     * @param  list<string>  $keys
     * @return list<string>
     */
    private static function ends(array $drafts, array $keys): array
    {
        $followed = [];
        foreach ($keys as $key) {
            $followed += array_fill_keys($drafts[$key]->after, true);
        }

        return array_values(array_filter($keys, static fn (string $key): bool => ! isset($followed[$key])));
    }

    /**
     * One order in which everything comes after what it waits for: by section, and within it with the tool that is in the hand.
     *
     * @return array{list<StepDraft>, list<string>}
     */
    private function inOrder(): array
    {
        $waits = $follows = [];
        foreach ($this->drafts as $key => $draft) {
            $after = array_values(array_filter($draft->after, fn (string $one): bool => isset($this->drafts[$one])));
            $waits[$key] = count($after);
            foreach ($after as $one) {
                $follows[$one][] = $key;
            }
        }
        /** @var array<int, array<string, true>> $ready by rank, in the order they became so */
        $ready = array_fill(0, count(self::SECTIONS), []);
        foreach ($waits as $key => $count) {
            if ($count === 0) {
                $ready[$this->drafts[$key]->rank][$key] = true;
            }
        }
        $order = [];
        $tools = [];
        while (($key = $this->next($ready, $tools)) !== null) {
            $draft = $this->drafts[$key];
            unset($ready[$draft->rank][$key]);
            $order[] = $draft;
            $tools = $draft->tools !== [] ? array_flip($draft->tools) : $tools;
            foreach ($follows[$key] ?? [] as $next) {
                if (--$waits[$next] === 0) {
                    $ready[$this->drafts[$next]->rank][$next] = true;
                }
            }
        }
        $done = array_flip(array_map(static fn (StepDraft $d): string => $d->key, $order));

        return [$order, array_keys(array_diff_key($this->drafts, $done))];
    }

    /**
     * Of what can be done, what belongs earliest, and of that what most of the tools in the hand are for.
     *
     * @param  array<int, array<string, true>>  $ready
     * @param  array<string, int>  $tools
     */
    private function next(array $ready, array $tools): ?string
    {
        foreach ($ready as $keys) {
            $best = null;
            $most = -1;
            foreach ($keys as $key => $_) {
                $shared = 0;
                foreach ($this->drafts[$key]->tools as $tool) {
                    $shared += isset($tools[$tool]) ? 1 : 0;
                }
                if ($shared > $most) {
                    [$best, $most] = [$key, $shared];
                }
            }
            if ($best !== null) {
                return (string) $best;
            }
        }

        return null;
    }

    /**
     * @return list<array{need: string, role: string, pieces: int, why: string}>
     */
    private function unplaced(): array
    {
        $rows = [];
        foreach ($this->build->needs as $need) {
            $fitted = $this->build->fitted($need->ref);
            if ($this->left[$need->ref] > 0 && ($fitted === null || ! $fitted->part->can(Ability::NotFitted))) {
                $rows[] = [
                    'need' => $need->ref,
                    'role' => $need->role,
                    'pieces' => $this->left[$need->ref],
                    'why' => match (true) {
                        $fitted === null => 'no part is chosen for it',
                        $fitted->part->can(Ability::Fastens) => 'no joint names them',
                        default => 'it is no part of the machine',
                    },
                ];
            }
        }

        return $rows;
    }

    /**
     * What each section takes, its share of the whole, and how hard it is: by what goes wrong dearly there. Common practice, no
     * source.
     *
     * @return list<array{section: string, steps: int, hours: float, share: float, difficulty: string, why: list<string>}>
     */
    public function sections(): array
    {
        $rows = $hours = [];
        foreach ($this->steps as $draft) {
            $hours[$draft->section()] = ($hours[$draft->section()] ?? 0.0) + $draft->hours;
        }
        $whole = array_sum($hours);
        foreach ($hours as $section => $own) {
            $drafts = array_filter($this->steps, static fn (StepDraft $d): bool => $d->section() === $section);
            $why = [];
            foreach ($drafts as $draft) {
                foreach (self::HARD as $kind => $reason) {
                    if (str_starts_with($draft->key, $kind) || in_array($kind, $draft->cautions, true)) {
                        $why[$kind] = $reason;
                    }
                }
            }
            $rows[] = [
                'section' => $section,
                'steps' => count($drafts),
                'hours' => round($own, 1),
                'share' => $whole > 0 ? round($own / $whole, 3) : 0.0,
                'difficulty' => match (true) {
                    isset($why['mains']) || isset($why['align/']) => 'hard',
                    $why !== [] => 'fair',
                    default => 'easy',
                },
                'why' => array_values($why),
            ];
        }

        return $rows;
    }

    /**
     * @return array{build: string, hours: float, steps: list<array<string, mixed>>,
     *     sections: list<array{section: string, steps: int, hours: float, share: float, difficulty: string, why: list<string>}>,
     *     unplaced: list<array{need: string, role: string, pieces: int, why: string}>, short: array<string, int>, circle: list<string>}
     */
    public function toArray(): array
    {
        return [
            'build' => $this->build->plan->name,
            'hours' => round(array_sum(array_map(static fn (StepDraft $d): float => $d->hours, $this->steps)), 1),
            'steps' => array_map(static fn (StepDraft $d): array => $d->toArray(), $this->steps),
            'sections' => $this->sections(),
            'unplaced' => $this->unplaced,
            'short' => $this->short,
            'circle' => $this->circle,
        ];
    }
}
