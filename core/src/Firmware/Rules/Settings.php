<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware\Rules;

use Magpie\Core\Firmware\Cures\SetAsItShouldBe;
use Magpie\Core\Firmware\SettingLine;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\HomingBy;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\UsableTravel;

/** E21: settings against the parts that are fitted. */
final class Settings implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E21',
            'Settings',
            'Do the settings read from the machine agree with the parts that are fitted?',
            Trade::Electrical,
            'Derived from the model; runaway protection before the first heat: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $seen = [];
        foreach (SettingsAudit::of($survey)->owners() as [$kind, $ref]) {
            if (! isset($seen[$ref])) {
                $seen[$ref] = true;
                yield new Subject(
                    $kind,
                    $ref,
                    match ($kind) {
                        'axis' => $survey->build->axes[$ref]->name,
                        'need' => $survey->build->roleOf($ref),
                        default => match ($ref) {
                            'temporary' => 'Temporary states',
                            'unknown' => 'Settings nothing asks for',
                            default => 'Firmware',
                        },
                    },
                    $kind === 'need' ? [$ref] : [],
                );
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $worst = Verdict::Holds;
        $says = [];
        $lines = SettingsAudit::of($survey)->linesOf($inquiry->subject->kind, $inquiry->subject->ref);
        $agree = 0;
        foreach ($lines as $line) {
            $state = $line->state();
            $agree += $state === SettingLine::AGREES ? 1 : 0;
            if (in_array($state, [SettingLine::AGREES, SettingLine::NEAR, SettingLine::DIFFERS], true)) {
                $inquiry->absorb($line->rests);
            }
            $inquiry->remark(
                "{$line->label}: ".
                    ($line->wants ?? 'not known').
                    ", since {$line->why}. ".
                    ($line->set?->value === null ? ucfirst($state).'.' : "Set to {$line->set->value}: {$state}."),
            );
            if ($line->kind === 'unknown') {
                $inquiry->miss("a part or axis that {$line->key} is about: {$line->why}");
            } elseif ($line->kind === 'temporary' && $line->set?->done === false) {
                $worst = Verdict::worst($worst, Verdict::Tight);
                $says[] = "{$line->label} must be undone {$line->set->until}";
            } elseif (in_array($state, [SettingLine::PLANNED, SettingLine::MADE], true)) {
                $inquiry->missUntil(
                    $line->asked(),
                    $state === SettingLine::MADE
                        ? "{$line->label}, read back: it was set to {$line->set?->made}"
                        : "{$line->label}, read back once it is set to {$line->set?->planned}",
                    "settings/{$line->key}",
                );
            } elseif ($state === SettingLine::NEAR) {
                $worst = Verdict::worst($worst, Verdict::Tight);
                $says[] = "{$line->label} is {$line->set?->value}, and {$line->wants} by its parts: right where it was measured";
            } elseif ($state === SettingLine::DIFFERS) {
                $worst = Verdict::worst($worst, $line->grave ? Verdict::Danger : Verdict::Fails);
                $says[] = "{$line->label} is {$line->set?->value}, and should be {$line->wants}";
            } elseif ($state === SettingLine::OPEN) {
                $inquiry->missUntil(
                    $line->wants === null ? Stage::Planned : $line->asked(),
                    $line->wants === null
                        ? "what {$line->label} should be, and what it is"
                        : "{$line->label}, as it is now",
                    "settings/{$line->key}",
                );
            }
        }
        $axis = $inquiry->build->axes[$inquiry->subject->ref] ?? null;
        if ($inquiry->subject->kind === 'axis' && $axis !== null) {
            [$worst, $says] = $this->axis($inquiry, $axis, $worst, $says);
        }

        return $says === []
            ? $inquiry->conclude(
                Verdict::Holds,
                $agree === count($lines)
                    ? 'All that is set agrees with what is fitted.'
                    : "{$agree} of ".count($lines).' settings are read and agree with what is fitted.',
            )
            : $inquiry->conclude($worst, implode('; ', $says).'.');
    }

    public function cures(): array
    {
        return [new SetAsItShouldBe];
    }

    public function examples(): Examples
    {
        $file = static fn (string $runaway): array => Examples::file(
            [Examples::part('bed', 'heater', ['rated_power' => '100 W'])],
            [
                'settings' => [
                    ['ref' => 'S1', 'kind' => 'setting', 'about' => 'firmware.runaway', 'value' => $runaway],
                    ['ref' => 'S2', 'kind' => 'setting', 'about' => 'heater.bed.crossed', 'value' => 'tried'],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('absent'), static fn (): array => $file('present'));
    }

    /**
     * @param  list<string>  $says
     * @return array{Verdict, list<string>}
     */
    private function axis(Inquiry $inquiry, Axis $axis, Verdict $worst, array $says): array
    {
        if ($axis->homing->bothEnds === true) {
            $worst = Verdict::worst($worst, Verdict::Fails);
            $says[] = 'one sensor answers at both ends: at switch-on it cannot tell which';
        }
        if ($axis->homing->by === HomingBy::Switch && $axis->homing->sensors === []) {
            $worst = Verdict::worst($worst, Verdict::Danger);
            $says[] = 'it homes by a switch, and none is fitted: it drives into its stop';
        }
        $configured = $axis->homing->configured;
        if ($configured !== null) {
            $usable = UsableTravel::of($inquiry, $axis);
            if ($configured->exceeds($usable)) {
                $worst = Verdict::worst($worst, Verdict::Danger);
                $says[] = "the settings allow {$configured}, and only {$usable} are there";
            }
        }

        return [$worst, $says];
    }
}
