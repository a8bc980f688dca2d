<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Choosing\Freedom;
use Magpie\Core\Machine\Choosing\Grade;
use Magpie\Core\Machine\Choosing\LineKind;
use Magpie\Core\Machine\Choosing\OwnWork;
use Magpie\Core\Machine\Choosing\Route;
use Magpie\Core\Machine\Choosing\RouteKind;
use Magpie\Core\Machine\Choosing\RouteLine;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** @implements Linking<Route> */
final class Routes implements Linking
{
    public function key(): string
    {
        return 'routes';
    }

    public function read(Node $node, Context $context): Route
    {
        $hours = [];
        $work = $node->part('hours');
        foreach (OwnWork::words() as $kind) {
            $time = $work->optionalWithin($kind, Dimension::Time, '0 h', '100000 h');
            $hours += $time === null ? [] : [$kind => $time];
        }
        $work->close();
        $route = new Route(
            $node->ref('ref'),
            $node->text('name'),
            $node->enum('kind', RouteKind::class),
            $node->optionalFlag('whole_build') ?? false,
            $node->refs('needs', BuildFile::MOST),
            array_map(fn (Node $item): RouteLine => $this->line($item, $context), $node->items('lines')),
            $node->texts('in_box'),
            $hours,
            $node->optionalQuantity('filament', Dimension::Mass),
            $node->optionalWhole('wait_days', 0, 1000),
            $node->optionalEnum('documentation', Grade::class),
            $node->optionalEnum('support', Grade::class),
            $node->optionalEnum('freedom', Freedom::class),
            $node->optionalMoney('resale', $context->currency),
            $node->optionalText('notes', 4000),
        );
        if ($route->wholeBuild && $route->needs !== []) {
            $node->fail('a route that buys the whole build names no single needs.', 'needs');
        }
        $node->close();

        return $route;
    }

    public function said(object $entry): string
    {
        return "route {$entry->name}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::each('needs', 'needs', $entry->needs);
        foreach ($entry->lines as $i => $line) {
            yield from Link::to("lines/{$i}/supplier", 'suppliers', $line->supplier);
        }
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'kind' => $entry->kind->value,
                'whole_build' => $entry->wholeBuild ? true : null,
                'needs' => $entry->needs,
                'lines' => array_map($this->writeLine(...), $entry->lines),
                'in_box' => $entry->inBox,
                'hours' => array_map(static fn (Quantity $q): string => $q->text(), $entry->hours),
                'filament' => $entry->filament?->text(),
                'wait_days' => $entry->waitDays,
                'documentation' => $entry->documentation?->value,
                'support' => $entry->support?->value,
                'freedom' => $entry->freedom?->value,
                'resale' => $entry->resale?->exactAmount(),
                'notes' => $entry->notes,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    private function line(Node $node, Context $context): RouteLine
    {
        $supplier = $node->optionalRef('supplier');
        if ($supplier !== null && ! isset($context->suppliers[$supplier])) {
            $node->fail("there is no supplier \"{$supplier}\" in this build.", 'supplier');
        }
        $line = new RouteLine(
            $node->text('what'),
            $node->enum('kind', LineKind::class),
            $node->whole('pieces', 1, 1, 100_000),
            $node->optionalMoney(
                'price',
                $supplier === null ? $context->currency : $context->suppliers[$supplier]->currency,
            ),
            $supplier,
            $node->whole('pack', 1, 1, 100_000),
            $node->whole('owned', 0),
            $node->optionalEnum('evidence', Evidence::class) ?? Evidence::Assumed,
        );
        $node->close();

        return $line;
    }

    /**
     * @return array<string, mixed>
     */
    private function writeLine(RouteLine $line): array
    {
        return array_filter(
            [
                'what' => $line->what,
                'kind' => $line->kind->value,
                'pieces' => $line->pieces,
                'price' => $line->price?->exactAmount(),
                'supplier' => $line->supplier,
                'pack' => $line->pack,
                'owned' => $line->owned ?: null,
                'evidence' => $line->evidence->value,
            ],
            static fn (mixed $v): bool => $v !== null,
        );
    }
}
