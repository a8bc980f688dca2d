<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every check carries two sample builds; what they promise is held here, for the checks of today and those to come. */
final class EveryCheckTest extends TestCase
{
    /**
     * @return iterable<string, array{Check}>
     */
    public static function checks(): iterable
    {
        foreach (Rules::inspector()->checks as $check) {
            yield $check->card()->id => [$check];
        }
    }

    #[DataProvider('checks')]
    public function test_its_sample_trips_it_and_shows_the_working(Check $check): void
    {
        $worst = $this->findings($check, $check->examples()->tripping())[0];

        self::assertSame($check->examples()->tripped, $worst->verdict, $worst->headline);
        self::assertTrue(
            $worst->working !== [] || $worst->missing !== [],
            'A verdict without working or a missing input says nothing.',
        );
    }

    #[DataProvider('checks')]
    public function test_its_other_sample_holds(Check $check): void
    {
        foreach ($this->findings($check, $check->examples()->holding()) as $finding) {
            if ($finding->missing === []) {
                self::assertSame(Verdict::Holds, $finding->verdict, $finding->headline);
            }
        }
        self::assertContains(
            Verdict::Holds,
            array_map(
                static fn (Finding $f): Verdict => $f->verdict,
                $this->findings($check, $check->examples()->holding()),
            ),
        );
    }

    #[DataProvider('checks')]
    public function test_it_never_passes_on_a_sellers_word(Check $check): void
    {
        $build = $check->examples()->holding();
        $listed = WeakerEvidence::of($build);
        foreach ($this->findings($check, $listed) as $finding) {
            if ($finding->inputs !== [] && ! $finding->card->informs && ! self::restsOnTablesOnly($finding)) {
                self::assertFalse(
                    $finding->verdict->passes() && $finding->whatever === [],
                    "{$check->card()->id} passed on a listing: {$finding->headline}",
                );
            }
        }
        self::assertSame(
            $this->verdictsThatFail($check, $build),
            $this->verdictsThatFail($check, $listed),
            'A failure stays one, whatever it rests on.',
        );
    }

    public function test_ids_are_unique_and_every_check_names_its_source(): void
    {
        $ids = [];
        foreach (Rules::inspector()->checks as $check) {
            $ids[] = $check->card()->id;
            self::assertNotSame('', $check->card()->source);
        }
        self::assertSame($ids, array_values(array_unique($ids)));
    }

    /**
     * @return non-empty-list<Finding>
     */
    private function findings(Check $check, Build $build): array
    {
        $findings = array_values(
            array_filter(
                Rules::inspector()->inspect($build)->findings,
                static fn (Finding $f): bool => $f->card->id === $check->card()->id,
            ),
        );
        self::assertNotSame([], $findings, 'The sample has no subject for its own check.');

        return $findings;
    }

    private static function restsOnTablesOnly(Finding $finding): bool
    {
        foreach ($finding->inputs as $input) {
            if (str_starts_with($input->where, 'parts/')) {
                return false;
            }
        }

        return true;
    }

    /**
     * @return list<string>
     */
    private function verdictsThatFail(Check $check, Build $build): array
    {
        $keys = [];
        foreach ($this->findings($check, $build) as $finding) {
            if ($finding->verdict === Verdict::Danger || $finding->verdict === Verdict::Fails) {
                $keys[] = $finding->key();
            }
        }

        return $keys;
    }
}
