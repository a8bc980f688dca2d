<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\Screening;
use Magpie\Core\Machine\Trade;

/** E18: what spindle and arc leads throw at the controls. */
final class Interference implements Check
{
    public function card(): Card
    {
        return new Card(
            'E18',
            'Interference',
            'Are the noisy leads screened, the arc start harmless and the controls in an earthed metal box?',
            Trade::Electrical,
            'Screened spindle and arc leads, blow-back start, an earthed metal box: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Disturbs) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $source = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $wrong = $source->part->can(Ability::Arcs) ? $this->arc($inquiry, $source) : [];
        $loud = $this->loud($inquiry, $source);
        if ($loud === []) {
            $inquiry->miss("the lead of {$source->need->role} to what it drives, and its screen");
        }
        foreach ($loud as $lead) {
            if ($lead->conductor->screen === null) {
                $inquiry->miss("whether {$lead->ref} is screened", "leads/{$lead->ref}/conductor/screen");
            } elseif ($lead->conductor->screen === Screening::None) {
                $wrong[] = "{$lead->ref} has no screen";
            } else {
                $inquiry->remark(
                    "{$lead->ref} is screened, bonded at {$lead->conductor->screen->value}. Run it apart from signal leads, crossing them square.",
                );
            }
        }
        $box = false;
        foreach ($inquiry->build->fittedThat(Ability::Encloses) as $cabinet) {
            $metal = in_array($inquiry->tryChoice($cabinet, 'material'), ['steel', 'aluminium'], true);
            $box = $box || ($metal && $inquiry->tryFlag($cabinet, 'earthed') === true);
        }
        if (! $box) {
            $inquiry->miss('an earthed metal box around the controls');
        }
        if ($wrong !== []) {
            return $inquiry->conclude(
                Verdict::Fails,
                ucfirst(implode('; ', $wrong)).'. The controls lose steps or restart.',
            );
        }

        return $inquiry->conclude(Verdict::Holds, 'Screened leads, and the controls in an earthed metal box.');
    }

    public function examples(): Examples
    {
        $file = static fn (string $start): array => Examples::file(
            [
                Examples::part('arc', 'arc_source', [
                    'start' => $start,
                    'isolated' => false,
                    'duty_cycle' => '60 %',
                    'torch_switch' => 'dry contact',
                ]),
                Examples::part('relay', 'relay', ['kind' => 'mechanical']),
                Examples::part('box', 'cabinet', ['material' => 'steel', 'earthed' => true]),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'relay.out',
                        'to' => 'arc.torch',
                        'conductor' => ['screen' => 'one end'],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('high frequency'),
            static fn (): array => $file('blow-back'),
            Verdict::Fails,
        );
    }

    /**
     * @return list<Lead> those that disturb what runs beside them, whichever way they were drawn
     */
    private function loud(Inquiry $inquiry, Fitted $source): array
    {
        return array_values(
            array_filter(
                $inquiry->build->leads,
                static fn (Lead $l): bool => array_filter(
                    [$l->from, $l->to],
                    static fn (PortRef $p): bool => $p->need === $source->need->ref &&
                        in_array($p->port, ['motor', 'torch'], true),
                ) !== [],
            ),
        );
    }

    /**
     * @return list<string> what is wrong with it
     */
    private function arc(Inquiry $inquiry, Fitted $source): array
    {
        $start = $inquiry->tryChoice($source, 'start');
        $isolated = $inquiry->tryFlag($source, 'isolated');
        $start ?? $inquiry->miss("how {$source->need->role} starts its arc", "parts/{$source->part->ref}/specs/start");
        $duty = $inquiry->tryRead($source, 'duty_cycle', 'k');
        $duty ?? $inquiry->miss("duty cycle of {$source->need->role}", "parts/{$source->part->ref}/specs/duty_cycle");
        if ($duty !== null) {
            $inquiry->remark(
                "At its current it may cut {$duty} of any ten minutes: ".
                    $duty->times(10)->in('').
                    ' minutes, then it rests. Eye and skin shade, fume extraction, no timber below and a fire watch after the last cut.',
            );
        }
        if ($start === 'high frequency' && $isolated !== true) {
            return [
                'a high-frequency start beside the controls; a source with blow-back start, or isolation and screens',
            ];
        }

        return [];
    }
}
