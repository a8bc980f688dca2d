<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Work\Question;

/** @implements Linking<Question> */
final class Questions implements Linking
{
    public function key(): string
    {
        return 'questions';
    }

    public function read(Node $node, Context $context): Question
    {
        $question = new Question(
            $node->ref('ref'),
            $node->text('asks', 1000),
            $node->text('of'),
            $node->day('asked'),
            $node->optionalText('answer', 4000),
            $node->optionalDay('answered'),
            $node->optionalRef('need'),
            $node->optionalRef('step'),
            $node->optionalRef('fault'),
        );
        if ($question->answered !== null && $question->answer === null) {
            $node->fail('is missing, though there is a day it came on.', 'answer');
        }
        if ($question->answered !== null && $question->answered < $question->asked) {
            $node->fail("{$question->answered} is before it was asked ({$question->asked}).", 'answered');
        }
        $node->close();

        return $question;
    }

    public function said(object $entry): string
    {
        return "question {$entry->ref}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::to('need', 'needs', $entry->need);
        yield from Link::to('step', 'steps', $entry->step);
        yield from Link::to('fault', 'faults', $entry->fault);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'asks' => $entry->asks,
                'of' => $entry->of,
                'asked' => $entry->asked,
                'answer' => $entry->answer,
                'answered' => $entry->answered,
                'need' => $entry->need,
                'step' => $entry->step,
                'fault' => $entry->fault,
            ],
            static fn (?string $v): bool => $v !== null,
        );
    }
}
