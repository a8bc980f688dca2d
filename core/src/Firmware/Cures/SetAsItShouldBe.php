<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware\Cures;

use Magpie\Core\Firmware\SettingLine;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** What was read back and differs, planned as it should be: what was read stays until it is read again. */
final readonly class SetAsItShouldBe implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $changes = [];
        $wants = null;
        foreach (SettingsAudit::of($at->survey)->linesOf($finding->subject->kind, $finding->subject->ref) as $line) {
            if ($line->state() === SettingLine::DIFFERS && $line->set !== null) {
                $changes[] = Remedy::set('settings', $line->set->ref, ['planned'], $line->wants);
                $wants = $line->wants;
            }
        }
        if ($changes !== []) {
            yield new Remedy(
                count($changes) === 1
                    ? "Plan to set it to {$wants}, and read it back"
                    : 'Plan '.count($changes).' settings as they should be, and read them back',
                $changes,
                false,
            );
        }
    }
}
