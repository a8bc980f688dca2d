<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Proving;

use Magpie\Core\Advice\Cause;
use Magpie\Core\Advice\Causes;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Sound machines raise no alarm; a fault planted in one is found, and shouts no louder than it has to. */
final class ProvingGroundTest extends TestCase
{
    /** Causes a sound machine may leave to look at. */
    private const CALM = 8;

    /** Causes one planted fault may raise. */
    private const LOUD = 3;

    /** @var array<string, Inspection> */
    private static array $sound = [];

    private static function sound(string $machine): Inspection
    {
        return self::$sound[$machine] ??= Rules::inspector()->inspect(Machines::all()[$machine]()->build());
    }

    /**
     * @return iterable<string, array{string}>
     */
    public static function machines(): iterable
    {
        foreach (array_keys(Machines::all()) as $name) {
            yield $name => [$name];
        }
    }

    #[DataProvider('machines')]
    public function test_a_sound_machine_raises_no_alarm(string $machine): void
    {
        $inspection = self::sound($machine);
        $grave = array_filter(
            $inspection->findings,
            static fn (Finding $f): bool => in_array($f->verdict, [Verdict::Danger, Verdict::Fails], true),
        );

        self::assertSame([], array_map(static fn (Finding $f): string => "{$f->key()}: {$f->headline}", $grave));
        self::assertLessThanOrEqual(self::CALM, count(Causes::of($inspection)), $machine);
        self::assertGreaterThan(30, $inspection->tally()['holds'], 'It is judged, and not passed over.');
    }

    /**
     * @return iterable<string, array{string, string, array<string, mixed>}>
     */
    public static function faults(): iterable
    {
        return Faults::all();
    }

    /**
     * @param  array<string, mixed>  $file
     */
    #[DataProvider('faults')]
    public function test_a_planted_fault_is_found(string $machine, string $check, array $file): void
    {
        $was = [];
        foreach (self::sound($machine)->findings as $finding) {
            $was[$finding->key()] = $finding->verdict->rank();
        }
        $inspection = Rules::inspector()->inspect(BuildFile::build($file));
        $worse = static fn (Finding $f): bool => $f->verdict->rank() <= Verdict::Tight->rank() &&
            $f->verdict->rank() < ($was[$f->key()] ?? Verdict::Holds->rank() + 1);

        $speaking = array_filter(
            $inspection->findings,
            static fn (Finding $f): bool => $f->card->id === $check && $worse($f),
        );
        self::assertNotSame([], $speaking, "{$check} says nothing.");
        $raised = array_filter(
            Causes::of($inspection),
            static fn (Cause $c): bool => array_filter($c->findings, $worse) !== [],
        );
        self::assertLessThanOrEqual(
            self::LOUD,
            count($raised),
            implode("\n", array_map(static fn (Cause $c): string => $c->says, $raised)),
        );
    }

    public function test_there_are_enough_of_both(): void
    {
        self::assertGreaterThanOrEqual(12, count(Machines::all()));
        self::assertGreaterThanOrEqual(150, count([...Faults::all()]));
    }
}
