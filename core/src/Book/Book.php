<?php

declare(strict_types=1);

namespace Magpie\Core\Book;

use Magpie\Core\Commissioning\Ladder;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Views\Svg;
use Magpie\Core\Layout\Views\View;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Planning\OpenItems;
use Magpie\Core\Service\Upkeep;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Methods;

/**
 * The build book: everything that was decided, fitted, wired, set, read, found, waived and left open, as chapters of paragraphs and
 * tables, and a passport of one page before them. It says what it knows; what is not in it was not noted.
 *
 * @phpstan-type Table array{head: list<string>, rows: list<list<string>>}
 * @phpstan-type Chapter array{title: string, says: list<string>, tables: list<Table>, photos: list<array{name: string, says: string}>,
 *     drawings: list<array{view: string, title: string}>}
 */
final readonly class Book
{
    private Build $build;

    private Ladder $ladder;

    /**
     * @param  int  $now  Unix seconds
     */
    public function __construct(private Inspection $inspection, private int $now)
    {
        $this->build = $inspection->survey->build;
        $this->ladder = new Ladder($inspection->survey, $inspection->open());
    }

    private static function day(?int $at): string
    {
        return $at === null ? '' : gmdate('Y-m-d', $at);
    }

    /** Who signed it off and when; null where nobody did, or what it rested on has changed since. */
    public function signed(): ?string
    {
        foreach ($this->ladder->rungs as $rung) {
            if ($rung->key === 'sign-off' && $rung->isPassed()) {
                return trim(($rung->record->by ?? 'somebody').', '.self::day($rung->record?->at), ', ');
            }
        }

        return null;
    }

    /**
     * @return array{name: string, kind: string, facts: list<array{string, string}>, signed: string|null}
     */
    public function passport(): array
    {
        $tally = $this->inspection->tally();
        $site = $this->build->site;
        $passed = count(array_filter($this->ladder->rungs, static fn ($r): bool => $r->isPassed()));
        $hours = (new Upkeep($this->build))->run()[0]['hours'];
        $facts = [
            ['What it is for', (string) $this->build->plan->purpose],
            ['Mains', trim(($site->mainsVoltage?->text() ?? '').' '.($site->mainsFrequency?->text() ?? ''))],
            [
                'Residual-current device',
                match ($site->residualCurrentDevice) {
                    true => 'yes',
                    false => 'no',
                    null => 'not said',
                },
            ],
            ['Axes', implode(', ', array_map(static fn ($axis): string => $axis->name, $this->build->axes))],
            ['Parts, leads', count($this->build->needs).', '.count($this->build->leads)],
            [
                'Findings',
                implode(
                    ', ',
                    array_map(static fn (string $v, int $n): string => "{$n} {$v}", array_keys($tally), $tally),
                ),
            ],
            ['Power-up', "{$passed} of ".count($this->ladder->rungs).' rungs passed'],
            ['Open items', (string) count(OpenItems::of($this->build, $this->now))],
            ['In use', "{$hours} h"],
            ['Printed on', self::day($this->now)],
        ];

        return [
            'name' => $this->build->plan->name,
            'kind' => $this->build->plan->kind,
            'facts' => array_values(array_filter($facts, static fn (array $f): bool => $f[1] !== '')),
            'signed' => $this->signed(),
        ];
    }

    /**
     * @param  list<string>  $says
     * @param  list<Table>  $tables
     * @param  list<array{name: string, says: string}>  $photos
     * @param  list<array{view: string, title: string}>  $drawings
     * @return Chapter
     */
    private static function chapter(
        string $title,
        array $says,
        array $tables = [],
        array $photos = [],
        array $drawings = [],
    ): array {
        return [
            'title' => $title,
            'says' => $says,
            'tables' => array_values(array_filter($tables, static fn (array $t): bool => $t['rows'] !== [])),
            'photos' => $photos,
            'drawings' => $drawings,
        ];
    }

    /**
     * @return list<Chapter>
     */
    public function chapters(): array
    {
        return [
            $this->brief(),
            $this->decisions(),
            $this->parts(),
            $this->places(),
            $this->wiring(),
            $this->settings(),
            $this->steps(),
            $this->powerUp(),
            $this->readings(),
            $this->straight(),
            $this->faults(),
            $this->pieces(),
            $this->waivers(),
            $this->open(),
            $this->upkeep(),
        ];
    }

    /**
     * @return Chapter
     */
    private function brief(): array
    {
        $rows = [];
        foreach ($this->build->workpieces as $piece) {
            $rows[] = [
                $piece->name,
                implode(
                    ' × ',
                    array_filter([$piece->length?->text(), $piece->width?->text(), $piece->height?->text()]),
                ),
            ];
        }

        return self::chapter(
            'What it is for',
            array_values(
                array_filter([$this->build->plan->purpose, $this->build->brief->notes, $this->build->site->notes]),
            ),
            [['head' => ['Workpiece', 'Size'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function decisions(): array
    {
        $rows = [];
        foreach ($this->build->decisions as $decision) {
            $choice = $decision->choice;
            $rows[] = [
                $decision->question,
                $choice === null ? 'open' : $this->called($choice),
                (string) $decision->reason,
                trim("{$decision->who} {$decision->date}"),
            ];
        }

        return self::chapter('Decisions', $rows === [] ? ['None is written down.'] : [], [
            ['head' => ['Question', 'Taken', 'Why', 'By, on'], 'rows' => $rows],
        ]);
    }

    private function called(string $choice): string
    {
        $part = $this->build->parts[$choice] ?? null;

        return $part === null ? $choice : $part->name;
    }

    /**
     * @return Chapter
     */
    private function parts(): array
    {
        $rows = [];
        foreach ($this->build->needs as $ref => $need) {
            $fitted = $this->build->fitted((string) $ref);
            $specs = [];
            foreach ($fitted->part->specs ?? [] as $spec) {
                $label = $fitted?->part->family->field($spec->key)->label ?? $spec->key;
                $specs[] = "{$label} {$spec->printed()} ({$spec->evidence->label()})";
            }
            $rows[] = [
                $need->role,
                (string) $need->quantity,
                $fitted->part->name ?? 'not chosen',
                implode('; ', $specs),
            ];
        }

        return self::chapter(
            'Parts, and what their figures rest on',
            [],
            [['head' => ['Place', 'Pieces', 'Part', 'Figures'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function places(): array
    {
        $layout = Layout::of($this->inspection->survey);
        $rows = [];
        foreach ($layout->bodies as $body) {
            $rows[] = [
                $body->label,
                ...array_map(
                    static fn (int $d): string => sprintf('%.1f to %.1f', $body->box->low[$d], $body->box->high[$d]),
                    [0, 1, 2],
                ),
                implode(', ', array_map(fn (string $axis): string => $this->build->axes[$axis]->name, $body->carried)),
            ];
        }

        return self::chapter(
            'Where it sits',
            $rows === [] ? [] : ['In mm from the left front bottom corner of the outline, with every axis at nought.'],
            [['head' => ['What', 'x', 'y', 'z', 'Moves with'], 'rows' => $rows]],
            [],
            $rows === []
                ? []
                : array_map(
                    static fn (View $view): array => ['view' => $view->value, 'title' => $view->title()],
                    View::cases(),
                ),
        );
    }

    /** One of its drawings, as SVG. */
    public function drawing(string $view): string
    {
        return Svg::of($this->inspection->survey, View::from($view));
    }

    /**
     * @return Chapter
     */
    private function wiring(): array
    {
        $rows = [];
        foreach ($this->build->leads as $lead) {
            $made = $lead->made
                ? 'made'
                : count(array_filter($lead->ends, static fn ($end): bool => $end->made)).' of 2 ends';
            $rows[] = [
                $lead->ref,
                $this->build->roleOf($lead->from->need)." · {$lead->from->port}",
                $this->build->roleOf($lead->to->need)." · {$lead->to->port}",
                trim(($lead->conductor->size?->text() ?? '').' '.($lead->length?->text() ?? '')),
                $made,
            ];
        }

        return self::chapter(
            'Wiring',
            ['Each lead from the source towards the load.'],
            [['head' => ['Lead', 'From', 'To', 'Size, length', 'State'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function settings(): array
    {
        $rows = [];
        foreach (SettingsAudit::of($this->inspection->survey)->lines() as $line) {
            $rows[] = [$line->label, (string) $line->wants, $line->set->value ?? '', $line->state()];
        }

        return self::chapter(
            'Settings and links',
            [],
            [['head' => ['What', 'Should be', 'Read back', 'State'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function steps(): array
    {
        $rows = [];
        foreach ($this->build->steps as $step) {
            $rows[] = [
                $step->section,
                $step->title,
                $step->state->value,
                $step->check === null
                    ? ''
                    : "{$step->check->what}: ".
                        ($step->check->measured?->text() ?? 'not measured').
                        " (± {$step->check->tolerance})",
                number_format($step->worked($this->now)->in('h'), 1),
            ];
        }

        return self::chapter(
            'Assembly',
            [],
            [['head' => ['Section', 'Step', 'State', 'Reading', 'Hours'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function powerUp(): array
    {
        $rows = [];
        foreach ($this->ladder->rungs as $i => $rung) {
            $rows[] = [
                (string) ($i + 1),
                $rung->title,
                $rung->state,
                trim(($rung->record->by ?? '').' '.self::day($rung->record?->at)),
                $rung->record->override ?? '',
            ];
        }
        $attempts = [];
        foreach ($this->build->attempts as $attempt) {
            $attempts[] = [
                self::day($attempt->at),
                $attempt->started ? 'started' : 'did not start',
                "breaker {$attempt->breaker}, stops {$attempt->stops}".
                ($attempt->lamps === null ? '' : ", {$attempt->lamps}"),
                (string) $attempt->note,
            ];
        }

        return self::chapter(
            'Power-up',
            ['A rung that is passed says that nothing was found, not that it is safe.'],
            [
                ['head' => ['', 'Rung', 'State', 'By, on', 'Passed with the reason'], 'rows' => $rows],
                ['head' => ['Power on', '', 'Seen', 'Note'], 'rows' => $attempts],
            ],
        );
    }

    /**
     * @return Chapter
     */
    private function readings(): array
    {
        $counting = AsMeasured::counting($this->build);
        $rows = $photos = [];
        foreach ($this->build->readings as $reading) {
            $where =
                $reading->need !== null
                    ? $this->build->roleOf($reading->need)
                    : $reading->axis ?? ($reading->scenario ?? '');
            if ($reading->photo !== null) {
                $photos[] = ['name' => $reading->photo, 'says' => "{$reading->what->label()} of {$where}"];
            }
            $rows[] = [
                $reading->what->label(),
                $where,
                $reading->value->text().($reading->accuracy === null ? '' : " ± {$reading->accuracy}"),
                trim(($reading->instrument ?? '').($reading->simulated ? ' (simulated)' : '')),
                trim(($reading->by ?? '').' '.self::day($reading->at)),
                match (true) {
                    $reading->struck !== null => "struck: {$reading->struck}",
                    ($counting[$reading->of()] ?? null) === $reading => 'counts',
                    default => 'an earlier one',
                },
            ];
        }

        return self::chapter(
            'Readings',
            [],
            [['head' => ['What', 'Where', 'Read', 'With', 'By, on', ''], 'rows' => $rows]],
            $photos,
        );
    }

    /**
     * @return Chapter
     */
    private function straight(): array
    {
        $rows = [];
        foreach ($this->build->alignments as $alignment) {
            try {
                $outcome = Methods::work($alignment->kind, $alignment->given);
                $first = $outcome->figures[0];
                $comes = sprintf('%s %.4g %s', $first['label'], $first['value'], $first['unit']);
                $verdict = $outcome->verdict() ?? 'no limit given';
            } catch (CannotAlign $e) {
                [$comes, $verdict] = ["{$e->field}: {$e->getMessage()}", ''];
            }
            $rows[] = [
                (Methods::all()[$alignment->kind] ?? null)?->title() ?? $alignment->kind,
                $alignment->axis === null ? '' : $this->build->axes[$alignment->axis]->name,
                $comes,
                $verdict,
                trim(
                    ($alignment->instrument ?? '').', '.($alignment->by ?? '').' '.self::day($alignment->at),
                    ', ',
                ),
            ];
        }

        return self::chapter(
            'Straight and square',
            [],
            [['head' => ['What', 'Axis', 'Comes to', 'Verdict', 'With, by, on'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function faults(): array
    {
        $rows = $photos = [];
        foreach ($this->build->faults as $fault) {
            $rows[] = [
                $fault->what,
                "{$fault->severity->value}, {$fault->state->value}",
                $fault->found,
                (string) $fault->cause,
                (string) $fault->fix,
            ];
            foreach ($fault->photos as $name) {
                $photos[] = ['name' => $name, 'says' => $fault->what];
            }
        }

        return self::chapter(
            'Faults and their fixes',
            [],
            [['head' => ['What', 'How bad, state', 'Found', 'Cause', 'Fix'], 'rows' => $rows]],
            $photos,
        );
    }

    /**
     * @return Chapter
     */
    private function pieces(): array
    {
        $rows = [];
        foreach ((new Upkeep($this->build))->pieces() as $group) {
            foreach ($group['made'] as $made) {
                $told = array_map(
                    static fn (array $f): string => "{$f['name']}: ".
                        ($f['measured'] ?? 'not measured').
                        " of {$f['nominal']} ± {$f['tolerance']}",
                    $made['features'],
                );
                $rows[] = [
                    self::day($made['at']),
                    trim("{$group['piece']}, {$group['recipe']}, {$group['material']}", ', '),
                    (string) $made['changed'],
                    implode('; ', $told),
                    $made['verdict'],
                ];
            }
        }

        return self::chapter(
            'Test pieces',
            [],
            [['head' => ['On', 'Piece', 'Changed', 'Measured', 'Verdict'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function waivers(): array
    {
        $rows = [];
        foreach ($this->build->accepted as $accepted) {
            $rows[] = ["Finding {$accepted->finding}", $accepted->why, $accepted->who];
        }
        foreach ($this->build->steps as $step) {
            if ($step->waived !== null) {
                $rows[] = ["Step “{$step->title}”", $step->waived, ''];
            }
        }
        foreach ($this->build->rungs as $record) {
            if ($record->override !== null) {
                $rows[] = [
                    "Rung {$record->ref}: ".implode('; ', array_slice($record->over, 0, 3)),
                    $record->override,
                    (string) $record->by,
                ];
            }
        }

        return self::chapter('Waived, with the reason', $rows === [] ? ['Nothing was waived.'] : [], [
            ['head' => ['What', 'Why', 'By'], 'rows' => $rows],
        ]);
    }

    /**
     * @return Chapter
     */
    private function open(): array
    {
        $rows = array_map(
            static fn (array $item): array => [$item['kind'], $item['what'], $item['release']],
            OpenItems::of($this->build, $this->now),
        );
        foreach ($this->inspection->open() as $finding) {
            if ($finding->verdict->value === 'danger' || $finding->verdict->value === 'fails') {
                $rows[] = [
                    $finding->verdict->value,
                    "{$finding->card->id} {$finding->subject->label}",
                    $finding->headline,
                ];
            }
        }

        return self::chapter(
            'Left open',
            $rows === [] ? ['Nothing is noted as open. That is not to say that it is safe.'] : [],
            [['head' => ['Kind', 'What', 'Until, or why'], 'rows' => $rows]],
        );
    }

    /**
     * @return Chapter
     */
    private function upkeep(): array
    {
        $upkeep = new Upkeep($this->build);
        $rows = array_map(
            fn (array $t): array => [
                $t['title'],
                "{$t['since']} of {$t['every']} h",
                $t['last'] === null ? 'never' : self::day($t['last']),
                (string) $t['found'],
            ],
            $upkeep->due(),
        );

        return self::chapter(
            'Upkeep',
            [],
            [
                ['head' => ['What', 'Since', 'Last', 'Found then'], 'rows' => $rows],
                [
                    'head' => ['In use', 'Hours'],
                    'rows' => array_map(
                        static fn (array $h): array => [$h['what'], (string) $h['hours']],
                        $upkeep->run(),
                    ),
                ],
            ],
        );
    }
}
