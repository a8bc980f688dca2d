<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Running\Job;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Job> */
final class Jobs implements Linking
{
    public function key(): string
    {
        return 'jobs';
    }

    public function read(Node $node, Context $context): Job
    {
        $job = new Job(
            $node->ref('ref'),
            $node->text('name'),
            $node->moment('at'),
            $node->quantity('time', Dimension::Time),
            $node->refs('axes'),
            $node->optionalQuantity('spindle', Dimension::Time),
            $node->optionalQuantity('heat', Dimension::Time),
            $node->optionalText('material'),
            $node->optionalText('note', 2000),
        );
        foreach (['spindle' => $job->spindle, 'heat' => $job->heat] as $key => $time) {
            if ($time?->exceeds($job->time) === true) {
                $node->fail("{$time} is longer than the job itself ({$job->time}).", $key);
            }
        }
        $node->close();

        return $job;
    }

    public function said(object $entry): string
    {
        return "job {$entry->name}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::each('axes', 'axes', $entry->axes);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'at' => $entry->at,
                'time' => $entry->time->text(),
                'axes' => $entry->axes,
                'spindle' => $entry->spindle?->text(),
                'heat' => $entry->heat?->text(),
                'material' => $entry->material,
                'note' => $entry->note,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
