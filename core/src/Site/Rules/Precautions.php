<?php

declare(strict_types=1);

namespace Magpie\Core\Site\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Site;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Site\Protection;

/** M02-ready: what has to be at hand where something burns, cuts or arcs. */
final class Precautions implements Check
{
    private const LABELS = ['torch' => 'Cutting with an arc', 'spindle' => 'Cutting', 'heat' => 'Heat left alone'];

    public function card(): Card
    {
        return new Card(
            'M02-ready',
            'Precautions',
            'Is at hand what this kind of work needs for nobody to be hurt?',
            Trade::Site,
            'Shade, screen, nothing that burns under the cut and a fire watch for arcs; eyes, ears and dust for cutters; alarm and extinguisher for heat: common practice, no source',
            topics: [Topic::Place, Topic::Scope],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $there = Protection::hazards($survey->build);
        foreach (self::LABELS as $hazard => $label) {
            if (isset($there[$hazard])) {
                yield new Subject('site', $hazard, $label, $there[$hazard]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $asked = Protection::ASKED[$inquiry->subject->ref] ?? $inquiry->lack('what it is about');
        $ready = $inquiry->build->site->ready;
        $without = [];
        foreach ($asked as $one) {
            $label = lcfirst(Site::PRECAUTIONS[$one]);
            match ($ready[$one] ?? null) {
                null => $inquiry->miss($label, "site/ready/{$one}"),
                false => ($without[] = $label),
                true => $inquiry->remark('At hand: '.$label.'.'),
            };
        }
        if ($without === []) {
            return $inquiry->isIncomplete()
                ? $inquiry->unproven()
                : $inquiry->conclude(Verdict::Holds, 'All of it is at hand.');
        }

        return $inquiry->conclude(
            $inquiry->subject->ref === Hazard::Torch->value ? Verdict::Danger : Verdict::Fails,
            'Not at hand: '.implode('; ', $without).'.',
        );
    }

    public function examples(): Examples
    {
        $file = static fn (bool $floor): array => [
            'brief' => ['process' => 'plasma'],
            'site' => ['ready' => ['bare_floor' => $floor] + array_fill_keys(Protection::ASKED['torch'], true)],
        ];

        return new Examples(static fn (): array => $file(false), static fn (): array => $file(true));
    }
}
