<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Scope;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** One value, several who speak of it: all are kept, one counts. */
final class RivalClaimsTest extends TestCase
{
    /**
     * @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>, Verdict}>
     */
    public static function claims(): iterable
    {
        $listed = ['value' => '30 mm', 'evidence' => 'listing'];
        $measured = ['value' => '32 mm', 'evidence' => 'measured'];
        yield 'the weaker counts' => [$listed, [$measured], Verdict::Fails];
        yield 'the stronger counts' => [$measured, [$listed], Verdict::Tight];
        yield 'they agree' => [$measured, [['value' => '3.2 cm', 'evidence' => 'listing']], Verdict::Holds];
        yield 'within a tolerance' => [
            $measured,
            [['value' => '30 mm', 'evidence' => 'listing', 'tolerance' => '10 %']],
            Verdict::Holds,
        ];
        yield 'two of one rank' => [$measured, [['value' => '33 mm', 'evidence' => 'measured']], Verdict::Tight];
        yield 'the best of several' => [
            $listed,
            [['value' => '31 mm', 'evidence' => 'manual'], $measured],
            Verdict::Fails,
        ];
    }

    /**
     * @param  array<string, mixed>  $counts
     * @param  list<array<string, mixed>>  $rivals
     */
    #[DataProvider('claims')]
    public function test_who_is_right(array $counts, array $rivals, Verdict $verdict): void
    {
        $finding = self::bore($counts, $rivals)->finding('S14/clutch/bore');

        $this->assertSame($verdict, $finding->verdict, $finding->headline);
    }

    public function test_words_agree_in_whatever_letters_and_flags_by_what_they_are(): void
    {
        $judged = static function (string $key, mixed $one, mixed $other): Verdict {
            $stop = Examples::part('stop', 'stop_button', []);
            $stop[0]['specs'] = [
                $key => [
                    'value' => $one,
                    'evidence' => 'measured',
                    'rivals' => [['value' => $other, 'evidence' => 'manual']],
                ],
            ];

            return (new SampleBuild(Examples::file([$stop])))->finding("S14/stop/{$key}")->verdict;
        };

        $this->assertSame(Verdict::Holds, $judged('normally', 'closed', 'closed'));
        $this->assertSame(Verdict::Tight, $judged('normally', 'closed', 'open'));
        $this->assertSame(Verdict::Holds, $judged('latching', true, true));
        $this->assertSame(Verdict::Tight, $judged('latching', true, false));
    }

    public function test_the_fix_lets_the_stronger_count_and_loses_none(): void
    {
        $sample = self::bore(
            ['value' => '30 mm', 'evidence' => 'listing', 'source' => 'the shop'],
            [['value' => '31 mm', 'evidence' => 'manual'], ['value' => '32 mm', 'evidence' => 'measured']],
        );
        $standing = Standing::of(Rules::inspector(), $sample->build);
        $remedies = (new RemedySearch($standing))->for($standing->findings()['S14/clutch/bore'])['remedies'];

        $this->assertCount(1, $remedies);
        $to = $remedies[0]['changes'][0]['set'][0]['to'];
        $this->assertSame('32 mm', $to['value']);
        $this->assertSame(['31 mm', '30 mm'], array_column($to['rivals'], 'value'));
        $this->assertSame('the shop', $to['rivals'][1]['source']);
    }

    public function test_only_the_one_that_counts_is_judged_by(): void
    {
        $counts = static fn (string $one, string $other): Verdict => (new SampleBuild(
            Examples::file([
                Examples::part('hot', 'hot_end', ['lined' => false, 'top_temperature' => '300 °C']),
                [
                    [
                        'ref' => 'reel',
                        'family' => 'filament',
                        'name' => 'reel',
                        'specs' => [
                            'nozzle_temperature' => [
                                'value' => $one,
                                'evidence' => 'datasheet',
                                'rivals' => [['value' => $other, 'evidence' => 'listing']],
                            ],
                        ],
                    ],
                    [
                        'ref' => 'reel',
                        'role' => 'reel',
                        'family' => 'filament',
                        'candidates' => ['reel'],
                        'choice' => 'reel',
                    ],
                ],
            ]),
        ))->finding('M13-print/reel')->verdict;

        $this->assertSame(Verdict::Holds, $counts('260 °C', '320 °C'));
        $this->assertSame(Verdict::Fails, $counts('320 °C', '260 °C'));
    }

    public function test_claims_are_kept_in_the_file_and_no_claim_has_claims(): void
    {
        $build = self::bore(
            ['value' => '30 mm', 'evidence' => 'listing'],
            [['value' => '32 mm', 'evidence' => 'measured']],
        )->build;
        $this->assertEquals($build->parts, BuildFile::read(BuildFile::write($build))->parts);

        $this->expectExceptionMessage('/parts/0/specs/bore/rivals/0/rivals');
        self::bore(['value' => '30 mm'], [['value' => '32 mm', 'rivals' => []]]);
    }

    /**
     * @param  array<string, mixed>  $counts
     * @param  list<array<string, mixed>>  $rivals
     */
    private static function bore(array $counts, array $rivals): SampleBuild
    {
        $clutch = Examples::part('clutch', 'pulley', []);
        $clutch[0]['specs'] = ['bore' => $counts + ['rivals' => $rivals]];

        return new SampleBuild(Examples::file([$clutch]));
    }
}
