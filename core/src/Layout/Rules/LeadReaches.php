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
use Magpie\Core\Layout\AsDrawn;
use Magpie\Core\Layout\Resting;
use Magpie\Core\Layout\Ways;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;

/** E28: a lead that was typed or cut to a length, against the way it has to go. */
final class LeadReaches implements Check
{
    public function card(): Card
    {
        return new Card(
            'E28',
            'Lead against its way',
            'Is this lead long enough for the way it has to go?',
            Trade::Electrical,
            'Square to the directions of the machine, through channels and chains; 5 % and 150 mm to spare are common practice, no source',
            topics: [Topic::Layout],
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (Ways::of($survey)->all as $ref => $way) {
            $lead = $survey->build->lead($ref);
            if ($lead !== null && $lead->length !== null && ! $lead->isDrawn && $way->waits === null) {
                yield new Subject('lead', $ref, $lead->label(), [$lead->from->need, $lead->to->need]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $way = Ways::of($survey)->all[$inquiry->subject->ref];
        $lead = $inquiry->build->lead($inquiry->subject->ref) ?? $inquiry->lack('the lead');
        $length = $inquiry->given(
            "length of {$lead->ref}",
            'l',
            $lead->length,
            Evidence::Measured,
            "leads/{$lead->ref}/length",
        );
        Resting::onWay($inquiry, $survey, $way);
        foreach ($way->all() as $part) {
            $inquiry->remark(ucfirst($part['what']).': '.Resting::mm($part['mm']));
        }
        $bare = Resting::mm((float) $way->bare());
        $wanted = AsDrawn::cut((float) $way->length());
        $loose = array_map(static fn (string $axis): string => $inquiry->build->axes[$axis]->name, $way->loose);
        if ($loose !== []) {
            $inquiry->remark('No chain takes up the movement of '.implode(' and ', $loose).': counted as a loop.');
        }
        $verdict = match (true) {
            $length->isBelow($bare) => Verdict::Fails,
            $length->isBelow($wanted) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            match ($verdict) {
                Verdict::Fails => "{$lead->ref} is {$length} long where the way alone is {$bare}: it does not reach".
                    ($lead->made ? ', as it was cut.' : '.'),
                Verdict::Tight => "{$lead->ref}, {$length} long, reaches over a way of {$bare}, with less than is usual for bends and both ends: {$wanted}.",
                default => "{$lead->ref} is {$length} long over a way of {$bare}; {$wanted} are usual.",
            },
            $inquiry->margin($wanted, $length),
            "{$wanted}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $length): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'body_length' => '215 mm',
                    'body_width' => '115 mm',
                    'body_height' => '50 mm',
                ]),
                Examples::part('fan', 'fan', [
                    'body_length' => '40 mm',
                    'body_width' => '40 mm',
                    'body_height' => '20 mm',
                ]),
            ],
            [
                'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'fan.power', 'length' => $length]],
                'places' => [
                    [
                        'ref' => 'psu',
                        'need' => 'psu',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                    [
                        'ref' => 'fan',
                        'need' => 'fan',
                        'x' => ['at' => 'after', 'of' => 'psu', 'by' => '600 mm'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('0.5 m'), static fn (): array => $file('0.9 m'), Verdict::Fails);
    }
}
