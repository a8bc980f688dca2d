<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Section;
use Magpie\Core\Machine\Setting;
use Magpie\Core\Machine\SettingKind;

/** @implements Section<Setting> */
final class Settings implements Section
{
    public function key(): string
    {
        return 'settings';
    }

    public function read(Node $node, Context $context): Setting
    {
        $setting = new Setting(
            $node->ref('ref'),
            $node->enum('kind', SettingKind::class),
            $node->text('about'),
            $node->optionalText('value'),
            $node->optionalText('until'),
            $node->optionalFlag('done') ?? false,
            $node->optionalText('notes', 4000),
            $node->optionalText('planned'),
            $node->optionalText('made'),
        );
        foreach (Setting::isSecret($setting->about) ? ['value', 'planned', 'made'] : [] as $key) {
            if (! in_array($setting->{$key}, [null, 'yes', 'no'], true)) {
                $node->fail('is a secret, which is not kept here: say "yes" or "no", whether it is set.', $key);
            }
        }
        if ($setting->kind === SettingKind::Temporary && $setting->until === null) {
            $node->fail('is missing; say by when it must be undone, such as "before main power".', 'until');
        }
        $node->close();

        return $setting;
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'kind' => $entry->kind->value,
                'about' => $entry->about,
                'planned' => $entry->planned,
                'made' => $entry->made,
                'value' => $entry->value,
                'until' => $entry->until,
                'done' => $entry->done ? true : null,
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
