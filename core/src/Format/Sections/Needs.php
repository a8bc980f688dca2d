<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Piece;
use Magpie\Core\Machine\Purpose;
use Magpie\Core\Machine\Scale;
use Magpie\Core\Machine\ScaleKind;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Need> */
final class Needs implements Linking
{
    public function key(): string
    {
        return 'needs';
    }

    public function read(Node $node, Context $context): Need
    {
        $family = $node->ref('family');
        if ($context->catalogue->find($family) === null) {
            $node->fail(sprintf('"%s" is not a family of parts known here.', $family), 'family');
        }
        $scale = $node->has('scale') ? $this->scale($node->member('scale')) : null;
        $weights = [];
        foreach ($node->members('weights') as $key => $member) {
            $weight = $member->raw();
            $weights[$key] =
                is_int($weight) && $weight >= 0 && $weight <= 5
                    ? $weight
                    : $member->fail('must be a whole number from 0 to 5.');
        }
        $need = new Need(
            $node->ref('ref'),
            $node->text('role'),
            $family,
            $node->whole('quantity', 1, 1, 100_000),
            $node->refs('candidates'),
            $node->optionalRef('choice'),
            $node->optionalText('reason', 2000),
            $node->optionalWithin('spares', Dimension::Ratio, '0 %', '1000 %'),
            $node->whole('owned', 0),
            $node->optionalEnum('purpose', Purpose::class),
            $scale,
            $weights,
            $node->has('sits_in') ? $this->seat($node) : null,
            $this->pieces($node),
            $node->optionalLength('opening'),
            $node->optionalEnum('stage', Stage::class),
            $node->optionalMoney('worth', $context->currency),
        );
        $node->member('scale');
        $node->close();

        return $need;
    }

    /**
     * @return list<Piece>
     */
    private function pieces(Node $node): array
    {
        $pieces = [];
        foreach ($node->items('pieces') as $item) {
            $piece = new Piece($item->text('name'), $item->optionalText('batch'));
            if (isset($pieces[$piece->name])) {
                $item->fail("there is already a piece \"{$piece->name}\".", 'name');
            }
            $item->close();
            $pieces[$piece->name] = $piece;
        }
        if (count($pieces) > $node->whole('quantity', 1, 1, 100_000)) {
            $node->fail('names more pieces than there are.', 'pieces');
        }

        return array_values($pieces);
    }

    /** Written "hot-end", or "board.drv-x" where it sits in one of several places. */
    private function seat(Node $node): string
    {
        $names = explode('.', $node->text('sits_in'), 2);
        foreach ($names as $name) {
            if (preg_match('/^[A-Za-z0-9][\w-]*$/', $name) !== 1) {
                $node->fail('must be written "need" or "need.port".', 'sits_in');
            }
        }

        return implode('.', array_map(Node::named(...), $names));
    }

    private function scale(Node $node): Scale
    {
        $kind = $node->enum('as', ScaleKind::class);
        $scale = new Scale(
            $node->enum('along', Along::class),
            $kind,
            $kind === ScaleKind::Count ? $node->quantity('every', Dimension::Length) : null,
            $kind === ScaleKind::Count ? $node->whole('plus', 0, 0, 10_000) : 0,
            $kind === ScaleKind::Length ? $node->optionalQuantity('longer', Dimension::Length, signed: true) : null,
        );
        if ($scale->every?->isPositive() === false) {
            $node->fail('must be longer than nought.', 'every');
        }
        $node->close();

        return $scale;
    }

    public function said(object $entry): string
    {
        return "need {$entry->role}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::each('candidates', 'parts', $entry->candidates);
        yield from Link::to('choice', 'parts', $entry->choice);
        yield from Link::to('sits_in', 'needs', $entry->host());
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'role' => $entry->role,
                'family' => $entry->family,
                'quantity' => $entry->quantity,
                'candidates' => $entry->candidates,
                'choice' => $entry->choice,
                'reason' => $entry->reason,
                'spares' => $entry->spares?->text(),
                'owned' => $entry->owned ?: null,
                'purpose' => $entry->purpose?->value,
                'scale' => $entry->scale === null
                        ? null
                        : array_filter(
                            [
                                'along' => $entry->scale->along->value,
                                'as' => $entry->scale->kind->value,
                                'every' => $entry->scale->every?->text(),
                                'plus' => $entry->scale->plus ?: null,
                                'longer' => $entry->scale->longer?->text(),
                            ],
                            static fn (mixed $v): bool => $v !== null,
                        ),
                'weights' => $entry->weights,
                'sits_in' => $entry->seat,
                'opening' => $entry->opening?->text(),
                'stage' => $entry->stage?->value,
                'worth' => $entry->worth?->exactAmount(),
                'pieces' => array_map(
                    static fn (Piece $p): array => array_filter(
                        ['name' => $p->name, 'batch' => $p->batch],
                        static fn (?string $v): bool => $v !== null,
                    ),
                    $entry->pieces,
                ),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
