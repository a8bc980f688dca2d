<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Which way the arrows point: HTTP → app → core, and the core knows nothing of either. Checked by phpstan. */
final class Arrows
{
    #[TestRule]
    public function the_core_knows_no_framework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Magpie\Core'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('Illuminate'),
                Selector::inNamespace('Laravel'),
                Selector::inNamespace('App'),
                Selector::inNamespace('Symfony'),
                Selector::inNamespace('Carbon'),
            )
            ->because('the rules of the job are tested alone');
    }

    #[TestRule]
    public function machines_know_nothing_of_judging(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::inNamespace('Magpie\Core\Machine'),
                Selector::inNamespace('Magpie\Core\Quantity'),
                Selector::inNamespace('Magpie\Core\Families'),
            )
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('Magpie\Core\Electrical'),
                Selector::inNamespace('Magpie\Core\Mechanical'),
                Selector::inNamespace('Magpie\Core\Format'),
            )
            ->because('the model is a value');
    }

    #[TestRule]
    public function trades_do_not_know_each_other(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Magpie\Core\Mechanical'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Magpie\Core\Electrical'))
            ->because('a trade is a folder of its own');
    }

    #[TestRule]
    public function persistence_knows_no_request(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::inNamespace('App\Builds'),
                Selector::inNamespace('App\Imports'),
                Selector::inNamespace('App\Models'),
            )
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Http'), Selector::inNamespace('Illuminate\Http'))
            ->because('HTTP calls the app, not the other way round');
    }
}
