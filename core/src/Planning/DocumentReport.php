<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\ScaleKind;
use Magpie\Core\Machine\Work\Document;
use Magpie\Core\Machine\Work\Papers;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Statement;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Scope\Scaling;

/**
 * What is written about a build: which document holds at each step, where two disagree and nobody says which holds, steps no
 * document speaks of, counts and lengths written for another size worked out for this one, and corrections to send back.
 *
 * @phpstan-type Own array{verdict: string, own: string|null, why: string}
 */
final readonly class DocumentReport
{
    public function __construct(private Build $build)
    {
    }

    /**
     * @return array{documents: list<array{ref: string, steps: int, unread: bool, unsent: int}>,
     *     steps: list<array{step: string, title: string, follow: list<array{ref: string, title: string, pages: string|null}>,
     *         passed_over: list<array{ref: string, title: string, pages: string|null}>, undecided: bool}>,
     *     uncovered: list<array{step: string, title: string}>,
     *     says: list<array{document: string, what: string, says: string, step: string|null, verdict: string, own: string|null, why: string}>,
     *     corrections: list<array{document: string, title: string, version: string|null, step: string|null, says: string, right: string,
     *         why: string|null, sent: string|null}>}
     */
    public function toArray(): array
    {
        $steps = $uncovered = [];
        foreach (Sequence::order($this->build->steps) as $step) {
            $follow = Papers::prevailing($this->build->documents, $step->ref);
            $speak = array_filter(
                $this->build->documents,
                static fn (Document $d): bool => array_filter(
                    $d->covers,
                    static fn ($p): bool => $p->step === $step->ref,
                ) !== [],
            );
            if ($speak === []) {
                $uncovered[] = ['step' => $step->ref, 'title' => $step->title];

                continue;
            }
            $steps[] = [
                'step' => $step->ref,
                'title' => $step->title,
                'follow' => array_map(static fn (Document $d): array => self::at($d, $step->ref), $follow),
                'passed_over' => array_values(
                    array_map(
                        static fn (Document $d): array => self::at($d, $step->ref),
                        array_filter($speak, static fn (Document $d): bool => ! in_array($d, $follow, true)),
                    ),
                ),
                'undecided' => count($follow) > 1,
            ];
        }

        return [
            'documents' => array_values(
                array_map(
                    static fn (Document $d): array => [
                        'ref' => $d->ref,
                        'steps' => count(array_unique(array_column($d->covers, 'step'))),
                        'unread' => $d->read === null,
                        'unsent' => $d->unsent(),
                    ],
                    $this->build->documents,
                ),
            ),
            'steps' => $steps,
            'uncovered' => $this->build->documents === [] ? [] : $uncovered,
            'says' => $this->says(),
            'corrections' => $this->corrections(),
        ];
    }

    /**
     * What a document states against what this machine wants.
     *
     * @return list<array{document: string, what: string, says: string, step: string|null, verdict: string, own: string|null, why: string}>
     */
    private function says(): array
    {
        $scaled = array_column((new Scaling($this->build))->toArray(), null, 'need');
        $rows = [];
        foreach ($this->build->documents as $document) {
            foreach ($document->says as $one) {
                $rows[] =
                    ['document' => $document->ref, 'what' => $one->what, 'says' => $one->says, 'step' => $one->step] +
                    $this->own($one, $scaled[$one->need ?? ''] ?? null);
            }
        }

        return $rows;
    }

    /**
     * @param  array{wanted: int|null, cut_wanted: string|null, missing: list<string>}|null  $scaled
     * @return Own verdict: same, other or unknown
     */
    private function own(Statement $one, ?array $scaled): array
    {
        $need = $this->build->need($one->need ?? '');
        if ($need === null) {
            return self::answer(null, 'it names nothing of the list, so it cannot be worked out: measure or count');
        }
        if ($scaled === null) {
            return self::compared(
                $one,
                (string) $need->quantity,
                'as many as are on the list; nothing says how it follows the size',
            );
        }
        $own = $need->scale?->kind === ScaleKind::Length ? $scaled['cut_wanted'] : $scaled['wanted'];

        return $own === null
            ? self::answer(null, 'needs the '.implode(' and the ', $scaled['missing']))
            : self::compared($one, (string) $own, "follows the size along {$need->scale?->along->value}");
    }

    /**
     * @return Own
     */
    private static function compared(Statement $one, string $own, string $why): array
    {
        $said = self::number($one->says);
        $wanted = self::number($own);
        if ($said === null || $wanted === null || $said->unit->dimension !== $wanted->unit->dimension) {
            return self::answer(null, "“{$one->says}” and {$own} are not of one kind: look which is meant");
        }
        $same = ! $said->exceeds($wanted) && ! $wanted->exceeds($said);

        return ['verdict' => $same ? 'same' : 'other', 'own' => $own, 'why' => $why];
    }

    /**
     * @return Own
     */
    private static function answer(?string $own, string $why): array
    {
        return ['verdict' => 'unknown', 'own' => $own, 'why' => $why];
    }

    private static function number(string $text): ?Quantity
    {
        foreach ([Dimension::Ratio, Dimension::Length] as $dimension) {
            try {
                return Quantity::parse($text, $dimension);
            } catch (CannotReadQuantity) {
                continue;
            }
        }

        return null;
    }

    /**
     * @return list<array{document: string, title: string, version: string|null, step: string|null, says: string, right: string,
     *     why: string|null, sent: string|null}>
     */
    private function corrections(): array
    {
        $rows = [];
        foreach ($this->build->documents as $document) {
            foreach ($document->corrections as $one) {
                $rows[] = [
                    'document' => $document->ref,
                    'title' => $document->title,
                    'version' => $document->version,
                    'step' => $one->step === null ? null : $this->build->steps[$one->step]->title,
                    'says' => $one->says,
                    'right' => $one->right,
                    'why' => $one->why,
                    'sent' => $one->sent,
                ];
            }
        }

        return $rows;
    }

    /**
     * @return array{ref: string, title: string, pages: string|null}
     */
    private static function at(Document $document, string $step): array
    {
        $pages = array_filter(
            array_map(
                static fn ($p): ?string => $p->step !== $step
                    ? null
                    : ($p->superseded
                        ? 'pass over '.($p->pages ?? 'it')
                        : $p->pages),
                $document->covers,
            ),
            static fn (?string $p): bool => $p !== null,
        );

        return [
            'ref' => $document->ref,
            'title' => $document->title,
            'pages' => $pages === [] ? null : implode(', ', $pages),
        ];
    }
}
