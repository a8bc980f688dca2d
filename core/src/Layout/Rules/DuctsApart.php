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
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Resting;
use Magpie\Core\Layout\Ways;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Screening;
use Magpie\Core\Machine\Trade;

/** E18-duct: mains and signals that lie in one channel. */
final class DuctsApart implements Check
{
    public function card(): Card
    {
        return new Card(
            'E18-duct',
            'What lies in one channel',
            'Do mains and signals keep apart in this channel?',
            Trade::Electrical,
            'IEC 60204-1 §13.1.3 (from memory): circuits of different voltage may share a channel where all are insulated for the highest; apart, or the signals screened, is common practice against interference',
            topics: [Topic::Layout],
            supposes: false,
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $layout = Layout::of($survey);
        $used = [];
        foreach (Ways::of($survey)->all as $way) {
            $used += $way->inDuct;
        }
        foreach (array_intersect_key($layout->bodies, $used) as $key => $body) {
            yield new Subject('place', (string) $key, $body->label);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $mains = $open = $screened = [];
        foreach (Ways::of($survey)->all as $ref => $way) {
            $lead = $inquiry->build->lead($ref);
            if ($lead === null || ! isset($way->inDuct[$inquiry->subject->ref])) {
                continue;
            }
            if ($inquiry->build->isMains($lead)) {
                $mains[$ref] = $way->inDuct[$inquiry->subject->ref];
            } elseif (Ways::isSignal($inquiry->build, $lead)) {
                self::isScreened($lead) ? ($screened[] = $ref) : ($open[$ref] = $way->inDuct[$inquiry->subject->ref]);
            }
        }
        Resting::onAll($inquiry, Layout::of($survey));
        if ($mains !== [] && $open !== []) {
            $together = $inquiry->work(
                'Together for up to',
                'l = min(l_m, l_s)',
                ['l_m' => Resting::mm(max($mains)), 'l_s' => Resting::mm(max($open))],
                Resting::mm(min(max($mains), max($open))),
                'mm',
            );

            return $inquiry->conclude(
                Verdict::Tight,
                'Mains ('.
                    implode(', ', array_slice(array_keys($mains), 0, 4)).
                    ') and signals ('.
                    implode(', ', array_slice(array_keys($open), 0, 4)).
                    ") lie together in {$inquiry->subject->label} for up to {$together}: another channel, a divider, or screened signal leads; and all insulated for mains.",
            );
        }
        if ($screened !== []) {
            $inquiry->remark('Screened: '.implode(', ', $screened).'.');
        }

        return $inquiry->conclude(
            Verdict::Holds,
            $mains === []
                ? "No mains lies in {$inquiry->subject->label}."
                : "No signal without a screen lies beside the mains in {$inquiry->subject->label}.",
        );
    }

    private static function isScreened(Lead $lead): bool
    {
        return $lead->conductor->screen !== null && $lead->conductor->screen !== Screening::None;
    }

    public function examples(): Examples
    {
        $at = static fn (string $ref, string $x): array => [
            'ref' => $ref,
            'need' => $ref,
            'x' => ['at' => 'low', 'by' => $x],
            'y' => ['at' => 'low'],
            'z' => ['at' => 'low'],
            'size' => ['length' => '60 mm', 'width' => '60 mm', 'height' => '40 mm'],
        ];
        $file = static fn (string $duct): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', []),
                Examples::part('inlet', 'mains_inlet', []),
                Examples::part('near', 'limit_switch', []),
                Examples::part('far', 'limit_switch', []),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                    ['ref' => 'W2', 'from' => 'near.signal', 'to' => 'far.signal'],
                ],
                'places' => [
                    $at('psu', '0 mm'),
                    $at('near', '100 mm'),
                    $at('inlet', '1000 mm'),
                    $at('far', '1100 mm'),
                    [
                        'ref' => 'duct',
                        'name' => 'Channel',
                        'duct' => $duct,
                        'size' => ['length' => '1200 mm', 'width' => '40 mm', 'height' => '40 mm'],
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low', 'by' => '100 mm'],
                        'z' => ['at' => 'low'],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('any'), static fn (): array => $file('signal'), Verdict::Tight);
    }
}
