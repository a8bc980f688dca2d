<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Closure;
use LogicException;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Running\AsMeasured;
use Throwable;

/**
 * Puts every check to every subject of a build. It knows no check by name.
 */
final readonly class Inspector
{
    /** @var list<Card> of each check */
    public array $cards;

    /** @var array<string, int> id → place in the list */
    private array $numbers;

    /**
     * @param  list<Check>  $checks
     * @param  (Closure(Build): Build)|null  $draws  puts in what follows from where things sit
     */
    public function __construct(public array $checks, private ?Closure $draws = null)
    {
        $this->cards = array_map(static fn (Check $c): Card => $c->card(), $checks);
        $this->numbers = array_flip(array_map(static fn (Card $c): string => $c->id, $this->cards));
    }

    /** A build as it is judged: with what was measured of it, and what follows from where its parts sit. */
    public function stands(Build $build): Build
    {
        $build = AsMeasured::of($build);

        return $this->draws === null ? $build : ($this->draws)($build);
    }

    /** The place of a check in the list, by its id. */
    public function numberOf(string $id): int
    {
        return $this->numbers[$id] ?? throw new LogicException("There is no check {$id}.");
    }

    /**
     * What may put a finding right, as its rule knows.
     *
     * @return list<Cure>
     */
    public function curesOf(Finding $finding): array
    {
        $check = $this->checks[$this->numberOf($finding->card->id)];

        return $check instanceof Curable ? $check->cures() : [];
    }

    /**
     * @param  (callable(int, int): void)|null  $about  told before each check: how many are done, of how many
     */
    public function inspect(Build $build, ?callable $about = null): Inspection
    {
        $survey = new Survey($this->stands($build));
        $findings = [];
        foreach ($this->checks as $i => $check) {
            if ($about !== null) {
                $about($i, count($this->checks));
            }
            foreach ($this->asked($i, $survey) as $inquiry) {
                $findings[] = $this->ask($check, $inquiry, $survey);
            }
        }

        return new Inspection($survey, $findings);
    }

    /**
     * One inquiry for each subject of a check. When the subjects themselves cannot be told, one about the build, which
     * then ends in that trouble.
     *
     * @return iterable<Inquiry>
     */
    public function asked(int $i, Survey $survey): iterable
    {
        $card = $this->cards[$i];
        try {
            foreach ($this->checks[$i]->subjects($survey) as $subject) {
                yield new Inquiry($survey, $card, $subject);
            }
        } catch (Throwable $e) {
            yield new Inquiry($survey, $card, new Subject('build', 'build', 'this build'), $e);
        }
    }

    /** One finding again, by its key, without the rest; null when the build has no such subject. */
    public function find(Build $build, string $key): ?Finding
    {
        [$id, $ref] = explode('/', $key, 2) + [1 => ''];
        $number = $this->numbers[$id] ?? null;
        if ($number === null) {
            return null;
        }
        $survey = new Survey($this->stands($build));
        foreach ($this->asked($number, $survey) as $inquiry) {
            if ($inquiry->subject->ref === $ref) {
                return $this->ask($this->checks[$number], $inquiry, $survey);
            }
        }

        return null;
    }

    public function ask(Check $check, Inquiry $inquiry, Survey $survey): Finding
    {
        $finding = self::judged($check, $inquiry, $survey);

        return $finding->verdict === Verdict::Unproven && $finding->trouble === null
            ? Whatever::of($finding, $survey, $this->judging($check, $inquiry, $survey)) ?? $finding
            : $finding;
    }

    /**
     * @return callable(Supposition): Finding the same check of the same subject, with some values supposed
     */
    public function judging(Check $check, Inquiry $inquiry, Survey $survey): callable
    {
        return static fn (
            Supposition $supposed,
        ): Finding => self::judged($check, new Inquiry($survey, $inquiry->card, $inquiry->subject, null, $supposed), $survey);
    }

    private static function judged(Check $check, Inquiry $inquiry, Survey $survey): Finding
    {
        try {
            return $inquiry->broken === null ? $check->judge($inquiry, $survey) : $inquiry->troubled($inquiry->broken);
        } catch (InputMissing) {
            return $inquiry->unproven();
        } catch (Throwable $e) {
            return $inquiry->troubled($e);
        }
    }
}
