<?php

declare(strict_types=1);

namespace Magpie\Core\Layout\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Layout\Body;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Meeting;
use Magpie\Core\Layout\Meetings;
use Magpie\Core\Layout\Resting;
use Magpie\Core\Machine\Trade;

/** M11-place: every solid body against every other, wherever the axes stand, and what stands inside something. */
final class MeetsNothing implements Check
{
    public function card(): Card
    {
        return new Card(
            'M11-place',
            'Nothing meets',
            'Does nothing that has a place meet anything else, wherever the axes stand?',
            Trade::Mechanical,
            'Boxes over the travel of each axis; what carries both moves neither against the other',
            topics: [Topic::Layout],
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        if ($survey->build->places !== []) {
            yield new Subject('build', 'layout', 'All that has a place');
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $layout = Layout::of($survey);
        Resting::onAll($inquiry, $layout);
        $troubles = $near = [];
        foreach ($layout->bodies as $body) {
            $out = $this->sticksOut($layout, $body);
            if ($out !== null) {
                $troubles[] = $out;
            }
        }
        $closest = null;
        foreach (Meetings::of($survey)->all as $meeting) {
            $wanted = Meetings::wanted($meeting->one, $meeting->other);
            if ($meeting->gap === null) {
                continue;
            }
            if ($closest === null || $meeting->gap < $closest->gap) {
                $closest = $meeting;
            }
            if ($meeting->gap < -Meetings::TOUCH) {
                $troubles[] = $this->meets($inquiry, $meeting);
            } elseif ($meeting->gap < $wanted - Meetings::TOUCH) {
                $near[] = [$meeting, $wanted];
            }
        }
        if ($closest !== null) {
            $this->show($inquiry, $closest);
        }
        $fault = array_filter(
            $near,
            static fn (array $n): bool => ! $n[0]->one->place->preference && ! $n[0]->other->place->preference,
        );
        foreach ($near as [$meeting, $wanted]) {
            $troubles[] =
                "{$meeting->one->label} and {$meeting->other->label} come as near as ".
                Resting::mm(max(0.0, (float) $meeting->gap)).
                ', and want '.
                Resting::mm($wanted);
        }
        if ($troubles !== []) {
            return $inquiry->conclude(
                count($troubles) > count($near) || $fault !== [] ? Verdict::Fails : Verdict::Tight,
                ucfirst(implode('; ', array_slice($troubles, 0, 5))).
                    (count($troubles) > 5 ? '; and '.(count($troubles) - 5).' more' : '').
                    '.',
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            $closest === null
                ? 'Nothing comes near anything else.'
                : "Nothing meets; the nearest are {$closest->one->label} and {$closest->other->label}, with ".
                    Resting::mm(max(0.0, (float) $closest->gap)).
                    ' between them.',
        );
    }

    private function show(Inquiry $inquiry, Meeting $meeting): void
    {
        $symbols = [];
        foreach ($meeting->gaps as $along => $mm) {
            $symbols["g_{$along}"] = Resting::mm($mm);
        }
        $inquiry->work(
            "Between {$meeting->one->label} and {$meeting->other->label} at the closest",
            'g = max('.implode(', ', array_keys($symbols)).')',
            $symbols,
            Resting::mm((float) $meeting->gap),
            'mm',
        );
    }

    /** What stands inside something and does not fit into it. */
    private function sticksOut(Layout $layout, Body $body): ?string
    {
        $host = $layout->bodies[$body->stands[0] ?? ''] ?? null;
        // Beside it, it is mounted on its outside.
        if ($host === null || ! $host->encloses || ! $host->box->overlaps($body->box)) {
            return null;
        }
        $out = $host->box->overhang($body->box);

        return $out > Meetings::TOUCH ? "{$body->label} sticks out of {$host->label} by ".Resting::mm($out) : null;
    }

    private function meets(Inquiry $inquiry, Meeting $meeting): string
    {
        $where = [];
        foreach ($meeting->where as $axis => [$from, $to]) {
            $where[] =
                $inquiry->build->axes[$axis]->name.
                ' from '.
                Resting::mm($from)->text().
                ' to '.
                Resting::mm($to)->text();
        }

        return "{$meeting->one->label} meets {$meeting->other->label}: they overlap by ".
            Resting::mm(-(float) $meeting->gap).
            ($where === [] ? '' : ', with '.implode(' and ', $where));
    }

    public function examples(): Examples
    {
        $file = static fn (string $gap): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'body_length' => '215 mm',
                    'body_width' => '115 mm',
                    'body_height' => '50 mm',
                ]),
                Examples::part('board', 'controller_board', [
                    'body_length' => '110 mm',
                    'body_width' => '90 mm',
                    'body_height' => '20 mm',
                ]),
            ],
            [
                'places' => [
                    [
                        'ref' => 'psu',
                        'need' => 'psu',
                        'x' => ['at' => 'low', 'by' => '10 mm'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                    [
                        'ref' => 'board',
                        'need' => 'board',
                        'x' => ['at' => 'after', 'of' => 'psu', 'by' => $gap],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('-5 mm'), static fn (): array => $file('20 mm'), Verdict::Fails);
    }
}
