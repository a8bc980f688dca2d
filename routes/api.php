<?php

declare(strict_types=1);

use App\Http\Controllers\AccountController;
use App\Http\Controllers\BookController;
use App\Http\Controllers\BuildController;
use App\Http\Controllers\CatalogueController;
use App\Http\Controllers\ChoiceController;
use App\Http\Controllers\DatesController;
use App\Http\Controllers\EditController;
use App\Http\Controllers\ErrandController;
use App\Http\Controllers\HealthController;
use App\Http\Controllers\ImportController;
use App\Http\Controllers\InspectionController;
use App\Http\Controllers\InvitationController;
use App\Http\Controllers\LibraryController;
use App\Http\Controllers\MechanicsController;
use App\Http\Controllers\OrderController;
use App\Http\Controllers\PasswordController;
use App\Http\Controllers\PeopleController;
use App\Http\Controllers\PhotoController;
use App\Http\Controllers\PictureController;
use App\Http\Controllers\PrintController;
use App\Http\Controllers\RemedyController;
use App\Http\Controllers\RunController;
use App\Http\Controllers\ScopeController;
use App\Http\Controllers\ServiceController;
use App\Http\Controllers\SessionController;
use App\Http\Controllers\SharingController;
use App\Http\Controllers\StockController;
use App\Http\Controllers\TuneController;
use App\Http\Controllers\VariantController;
use App\Http\Controllers\WiringController;
use App\Http\Controllers\WorkController;
use App\Http\Middleware\OneSnapshot;
use App\Http\Middleware\Stateful;
use Illuminate\Support\Facades\Route;
use Magpie\Core\Layout\Views\View;

// Open to everybody; what guesses at a secret is slowed down.
// What tells that the disk is full must not need it: no session, no count of tries, no transaction. nginx holds floods back.
Route::get('health', [HealthController::class, 'show'])->withoutMiddleware([Stateful::class, OneSnapshot::class]);
Route::get('session', [SessionController::class, 'show']);
Route::delete('session', [SessionController::class, 'destroy']);
Route::post('session', [SessionController::class, 'store']);
Route::middleware('throttle:sign-in')->group(static function (): void {
    Route::post('session/second', [SessionController::class, 'second']);
    Route::post('session/first', [SessionController::class, 'first']);
    Route::post('session/demo', [SessionController::class, 'demoStore']);
    Route::post('password/forgotten', [PasswordController::class, 'forgotten']);
    Route::post('password/reset', [PasswordController::class, 'reset']);
    Route::get('invited/{token}', [InvitationController::class, 'show']);
    Route::post('invited/{token}', [InvitationController::class, 'accept']);
    Route::post('shared/{token}', [SharingController::class, 'open']);
});

// Everything else is for whoever came in, by the least role each asks for in what it is about.
Route::middleware('entered')->group(static function (): void {
    Route::middleware('may:visitor')->group(static function (): void {
        Route::get('catalogue', [CatalogueController::class, 'show']);
        Route::get('doubt', [CatalogueController::class, 'doubt']);
        Route::get('belt-loop', [MechanicsController::class, 'belt']);
        Route::get('cutting-data', [MechanicsController::class, 'cutting']);
        Route::post('turning-parts', [MechanicsController::class, 'turning']);
        Route::get('starters', [BuildController::class, 'starters']);
        Route::get('builds', [BuildController::class, 'index']);
    });
    Route::middleware('may:builder')->group(static function (): void {
        Route::post('builds', [BuildController::class, 'store']);
        Route::post('archives', [BookController::class, 'restore']);
    });
    // About oneself, and by nobody's token.
    Route::middleware('may:owner')->group(static function (): void {
        Route::put('session/password', [PasswordController::class, 'change']);
        Route::get('account', [AccountController::class, 'show']);
        Route::put('account', [AccountController::class, 'rename']);
        Route::put('account/address', [AccountController::class, 'move']);
        Route::delete('account/notices', [AccountController::class, 'noticed']);
        Route::delete('account', [AccountController::class, 'destroy']);
        Route::post('account/second', [AccountController::class, 'beginSecond']);
        Route::put('account/second', [AccountController::class, 'confirmSecond']);
        Route::delete('account/second', [AccountController::class, 'endSecond']);
        Route::post('account/recovery-codes', [AccountController::class, 'codes']);
        Route::delete('account/sign-ins', [AccountController::class, 'signOutOthers']);
        Route::delete('account/sign-ins/{signIn}', [AccountController::class, 'signOut'])->whereNumber('signIn');
        Route::post('account/tokens', [AccountController::class, 'makeToken']);
        Route::delete('account/tokens/{token}', [AccountController::class, 'revokeToken'])->whereNumber('token');
        Route::post('workshops', [PeopleController::class, 'found']);
    });
    Route::prefix('builds/{build}')
        ->whereNumber('build')
        ->group(static function (): void {
            Route::middleware('may:visitor')->group(static function (): void {
                Route::get('', [BuildController::class, 'show']);
                Route::get('revision', [BuildController::class, 'revision']);
                Route::get('file', [BuildController::class, 'file']);
                Route::post('pulse', [PeopleController::class, 'pulse']);
                Route::get('parts.csv', [BuildController::class, 'partsList']);
                Route::get('overview', [InspectionController::class, 'overview']);
                Route::get('findings/{key}', [InspectionController::class, 'finding'])->where('key', '.+');
                Route::get('remedies/{key}', [RemedyController::class, 'show'])->where('key', '.+');
                Route::post('remedies', [RemedyController::class, 'together']);
                Route::get('harness', [WiringController::class, 'harness']);
                Route::get('harness/loom', [WiringController::class, 'loom']);
                Route::get('harness.csv', [WiringController::class, 'harnessCsv']);
                Route::get('wiring', [WiringController::class, 'show']);
                Route::get('proposed-leads', [WiringController::class, 'proposed']);
                Route::get('stops', [WiringController::class, 'stops']);
                Route::get('ports', [WiringController::class, 'ports']);
                Route::get('ports/{need}/{part}', [WiringController::class, 'transfer']);
                Route::get('settings', [WiringController::class, 'settings']);
                Route::get('motion', [MechanicsController::class, 'motion']);
                Route::get('axes/{axis}/motors', [MechanicsController::class, 'motors']);
                Route::get('joints', [MechanicsController::class, 'joints']);
                Route::get('couplings', [MechanicsController::class, 'couplings']);
                Route::get('heat', [MechanicsController::class, 'heat']);
                Route::get('wiring/{scenario}.cir', [WiringController::class, 'netlist']);
                Route::get('power', [InspectionController::class, 'power']);
                Route::get('dates', [DatesController::class, 'show']);
                Route::get('dates.ics', [DatesController::class, 'calendar']);
                Route::get('derived-steps', [WorkController::class, 'derived']);
                Route::get('way-back/{need}', [WorkController::class, 'wayBack']);
                Route::get('evening', [WorkController::class, 'evening']);
                Route::get('open-items', [WorkController::class, 'open']);
                Route::get('documents', [WorkController::class, 'documents']);
                Route::get('bags', [WorkController::class, 'bags']);
                Route::get('screw-in-hand', [WorkController::class, 'inHand']);
                Route::get('look-ahead', [WorkController::class, 'lookAhead']);
                Route::get('faults/{fault}/case', [WorkController::class, 'fault']);
                Route::get('picture', [PictureController::class, 'show']);
                Route::get('picture/{view}.svg', [PictureController::class, 'view'])->whereIn('view', View::words());
                Route::get('machine.gltf', [PictureController::class, 'gltf']);
                Route::get('positions.csv', [PictureController::class, 'positions']);
                Route::get('sheets/{place}.{format}', [PictureController::class, 'sheet'])->whereIn('format', ['svg', 'dxf']);
                Route::get('arrangements/{place}', [PictureController::class, 'arrangements']);
                Route::get('ladder', [RunController::class, 'ladder']);
                Route::get('book', [BookController::class, 'show']);
                Route::get('archive', [BookController::class, 'archive']);
                Route::get('start-list', [ServiceController::class, 'start']);
                Route::get('upkeep', [ServiceController::class, 'upkeep']);
                Route::post('tune/note', [TuneController::class, 'note']);
                Route::post('tune/spectrum', [TuneController::class, 'spectrum']);
                Route::post('tune/step-response', [TuneController::class, 'loop']);
                Route::post('tune/following', [TuneController::class, 'following']);
                Route::get('simulated-logs/{what}', [TuneController::class, 'simulated']);
                Route::get('alignments', [RunController::class, 'alignments']);
                Route::post('alignments', [RunController::class, 'tryAlignment']);
                Route::get('simulated-alignments/{kind}', [RunController::class, 'simulatedGiven']);
                Route::get('simulated-readings/{key}', [RunController::class, 'simulated'])->where('key', '.+');
                Route::get('prints', [PrintController::class, 'queue']);
                Route::get('imports', [ImportController::class, 'going']);
                Route::get('errands', [ErrandController::class, 'index']);
                Route::post('errands', [ErrandController::class, 'store']);
                Route::get('errands/{errand}', [ErrandController::class, 'show']);
                Route::delete('errands/{errand}', [ErrandController::class, 'destroy']);
                Route::post('errands/{errand}/again', [ErrandController::class, 'again']);
                Route::get('errands/{errand}/file', [ErrandController::class, 'file']);
                Route::get('arrivals', [OrderController::class, 'arrivals']);
                Route::get('scope', [ScopeController::class, 'show']);
                Route::get('measure-first', [ScopeController::class, 'measureFirst']);
                Route::get('needs/{need}/comparison', [ChoiceController::class, 'comparison']);
                Route::get('variants', [VariantController::class, 'index']);
                Route::get('variants/{other}', [VariantController::class, 'show'])->whereNumber('other');
                Route::get('steps/{step}/simulated-reading', [InspectionController::class, 'reading']);
                Route::get('photos/{name}', [PhotoController::class, 'show']);
                Route::middleware('priced')->group(static function (): void {
                    Route::get('money', [InspectionController::class, 'money']);
                    Route::get('claims', [OrderController::class, 'claims']);
                    Route::get('order', [OrderController::class, 'order']);
                    Route::get('order/frontier', [OrderController::class, 'frontier']);
                    Route::get('true-cost', [ScopeController::class, 'trueCost']);
                    Route::get('routes', [ScopeController::class, 'routes']);
                });
            });
            Route::middleware('may:reader')->group(static function (): void {
                Route::get('edits', [EditController::class, 'history']);
                Route::get('edits/{edit}', [EditController::class, 'show'])->whereNumber('edit');
                Route::get('hours', [WorkController::class, 'hours']);
                Route::get('stock', [StockController::class, 'index']);
                Route::get('people', [SharingController::class, 'show']);
            });
            Route::middleware('may:builder')->group(static function (): void {
                Route::post('edits', [EditController::class, 'store']);
                Route::post('undo', [EditController::class, 'undo']);
                Route::post('redo', [EditController::class, 'redo']);
                Route::post('template', [BookController::class, 'template']);
                Route::post('stock', [StockController::class, 'take']);
                Route::post('needs', [ChoiceController::class, 'place']);
                Route::post('needs/{need}/candidates', [ChoiceController::class, 'adopt']);
                Route::post('variants', [VariantController::class, 'store']);
                Route::post('imports', [ImportController::class, 'store']);
                Route::post('photos', [PhotoController::class, 'store']);
            });
            Route::middleware('may:owner')->group(static function (): void {
                Route::delete('', [BuildController::class, 'destroy']);
                Route::put('people/{person}', [SharingController::class, 'update'])->whereNumber('person');
                Route::post('links', [SharingController::class, 'share']);
                Route::delete('links/{link}', [SharingController::class, 'unshare'])->whereNumber('link');
            });
        });
    Route::prefix('workshops/{workshop}')
        ->whereNumber('workshop')
        ->group(static function (): void {
            Route::middleware('may:reader')->group(static function (): void {
                Route::get('library', [LibraryController::class, 'index']);
                Route::get('people', [PeopleController::class, 'index']);
                Route::delete('people/me', [PeopleController::class, 'leave']);
            });
            Route::middleware('may:builder')->group(static function (): void {
                Route::post('library', [LibraryController::class, 'store']);
                Route::post('library/examples', [LibraryController::class, 'examples']);
                Route::post('library/undo', [LibraryController::class, 'undo']);
            });
            Route::middleware('may:owner')->group(static function (): void {
                Route::put('people/{person}', [PeopleController::class, 'update'])->whereNumber('person');
                Route::delete('people/{person}', [PeopleController::class, 'remove'])->whereNumber('person');
                Route::post('invitations', [InvitationController::class, 'store']);
                Route::get('events', [PeopleController::class, 'events']);
                Route::put('second-factor', [PeopleController::class, 'require']);
            });
        });
    Route::delete('invitations/{invitation}', [InvitationController::class, 'destroy'])
        ->whereNumber('invitation')
        ->middleware('may:owner');
    Route::prefix('library/{item}')
        ->whereNumber('item')
        ->group(static function (): void {
            Route::get('', [LibraryController::class, 'show'])->middleware('may:reader');
            Route::put('', [LibraryController::class, 'update'])->middleware('may:builder');
            Route::delete('', [LibraryController::class, 'destroy'])->middleware('may:builder');
        });
    Route::prefix('imports/{import}')->group(static function (): void {
        Route::get('', [ImportController::class, 'show'])->middleware('may:reader');
        Route::middleware('may:builder')->group(static function (): void {
            Route::put('', [ImportController::class, 'update']);
            Route::post('confirm', [ImportController::class, 'confirm']);
            Route::delete('', [ImportController::class, 'destroy']);
        });
    });
});
