<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** @implements Linking<Scenario> */
final class Scenarios implements Linking
{
    public function key(): string
    {
        return 'scenarios';
    }

    public function read(Node $node, Context $context): Scenario
    {
        $loads = [];
        foreach ($node->members('loads', BuildFile::MOST) as $need => $member) {
            $share = $member->asQuantity(Dimension::Ratio);
            if ($share->exceeds(Quantity::ratio(1))) {
                $member->fail('a load cannot run at more than 100 % of its rating.');
            }
            $loads[$need] = $share;
        }
        $scenario = new Scenario(
            $node->ref('ref'),
            $node->text('name'),
            $loads,
            $node->optionalWithin('duration', Dimension::Time, '0 h', '100000 h'),
            $node->optionalWhole('runs_per_year', 0, 100_000),
            $node->optionalQuantity('measured', Dimension::Power),
        );
        $node->close();

        return $scenario;
    }

    public function said(object $entry): string
    {
        return "scenario {$entry->name}";
    }

    public function links(object $entry): iterable
    {
        foreach (array_keys($entry->loads) as $need) {
            yield new Link("loads/{$need}", 'needs', (string) $need);
        }
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'loads' => array_map(static fn (Quantity $q): string => $q->text(), $entry->loads),
                'duration' => $entry->duration?->text(),
                'runs_per_year' => $entry->runsPerYear,
                'measured' => $entry->measured?->text(),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
