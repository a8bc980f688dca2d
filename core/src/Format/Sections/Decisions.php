<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Choosing\Decision;
use Magpie\Core\Machine\Choosing\DecisionAbout;
use Magpie\Core\Machine\Choosing\DecisionState;
use Magpie\Core\Machine\Choosing\Interest;
use Magpie\Core\Machine\Choosing\Opinion;
use Magpie\Core\Machine\Choosing\Rejection;
use Magpie\Core\Machine\Choosing\Schools;

/** @implements Linking<Decision> */
final class Decisions implements Linking
{
    public function key(): string
    {
        return 'decisions';
    }

    public function read(Node $node, Context $context): Decision
    {
        $facts = [];
        foreach ($node->members('facts') as $name => $member) {
            $fact = $member->raw();
            $facts[$name] =
                is_string($fact) && mb_strlen($fact) <= 400
                    ? $fact
                    : $member->fail('must be a text of at most 400 characters.');
        }
        $about = $node->enum('about', DecisionAbout::class);
        $state = $node->optionalEnum('state', DecisionState::class) ?? DecisionState::Open;
        $school = $node->optionalText('school', 64);
        $choice = $node->optionalText('choice');
        if ($about === DecisionAbout::School) {
            $known =
                Schools::find($school ?? '') ??
                $node->fail('is not a question on which practice is divided; see the list in docs/format.', 'school');
            if ($choice !== null && ! isset($known['sides'][$choice])) {
                $node->fail(
                    sprintf('"%s" is not one of %s.', $choice, implode(', ', array_keys($known['sides']))),
                    'choice',
                );
            }
        }
        $decision = new Decision(
            $node->ref('ref'),
            $node->text('question', 400),
            $about,
            $state,
            $node->optionalRef('need') ??
                ($about === DecisionAbout::Part ? $node->fail('is missing: which need is it about?', 'need') : null),
            $school,
            $choice ??
                ($state === DecisionState::Made
                    ? $node->fail('a decision that is made says what was taken.', 'choice')
                    : null),
            $node->optionalText('reason', 2000) ??
                ($state === DecisionState::Made ? $node->fail('a decision that is made says why.', 'reason') : null),
            $node->optionalText('who', 120),
            $node->optionalDay('date'),
            array_map($this->rejection(...), $node->items('rejected')),
            array_map($this->opinion(...), $node->items('opinions')),
            $facts,
        );
        $node->close();

        return $decision;
    }

    public function said(object $entry): string
    {
        return "decision \"{$entry->question}\"";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('need', 'needs', $entry->need);
        $about = ['part' => 'parts', 'route' => 'routes'][$entry->about->value] ?? null;
        yield from $about === null ? [] : Link::to('choice', $about, $entry->choice);
    }

    public function write(object $entry): array
    {
        return self::filled([
            'ref' => $entry->ref,
            'question' => $entry->question,
            'about' => $entry->about->value,
            'state' => $entry->state->value,
            'need' => $entry->need,
            'school' => $entry->school,
            'choice' => $entry->choice,
            'reason' => $entry->reason,
            'who' => $entry->who,
            'date' => $entry->date,
            'rejected' => array_map(
                static fn (Rejection $r): array => self::filled(['what' => $r->what, 'why' => $r->why]),
                $entry->rejected,
            ),
            'opinions' => array_map(
                static fn (Opinion $o): array => self::filled([
                    'about' => $o->about,
                    'says' => $o->says,
                    'interest' => $o->interest->value,
                    'who' => $o->who,
                    'date' => $o->date,
                    'reports' => $o->reports,
                ]),
                $entry->opinions,
            ),
            'facts' => $entry->facts,
        ]);
    }

    private function rejection(Node $node): Rejection
    {
        $rejection = new Rejection($node->text('what'), $node->optionalText('why', 2000));
        $node->close();

        return $rejection;
    }

    private function opinion(Node $node): Opinion
    {
        $opinion = new Opinion(
            $node->text('about'),
            $node->text('says', 2000),
            $node->enum('interest', Interest::class),
            $node->optionalText('who', 120),
            $node->optionalDay('date'),
            $node->whole('reports', 1, 1, 100_000),
        );
        $node->close();

        return $opinion;
    }

    /**
     * @param  array<string, mixed>  $members
     * @return array<string, mixed>
     */
    private static function filled(array $members): array
    {
        return array_filter($members, static fn (mixed $v): bool => $v !== null && $v !== []);
    }
}
