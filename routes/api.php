<?php

declare(strict_types=1);

use App\Http\Controllers\BookController;
use App\Http\Controllers\BuildController;
use App\Http\Controllers\CatalogueController;
use App\Http\Controllers\ChoiceController;
use App\Http\Controllers\DatesController;
use App\Http\Controllers\EditController;
use App\Http\Controllers\ImportController;
use App\Http\Controllers\InspectionController;
use App\Http\Controllers\LibraryController;
use App\Http\Controllers\MechanicsController;
use App\Http\Controllers\OrderController;
use App\Http\Controllers\PhotoController;
use App\Http\Controllers\PrintController;
use App\Http\Controllers\RemedyController;
use App\Http\Controllers\RunController;
use App\Http\Controllers\ScopeController;
use App\Http\Controllers\ServiceController;
use App\Http\Controllers\SessionController;
use App\Http\Controllers\StockController;
use App\Http\Controllers\TuneController;
use App\Http\Controllers\VariantController;
use App\Http\Controllers\WiringController;
use App\Http\Controllers\WorkController;
use Illuminate\Support\Facades\Route;

Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'store']);
Route::post('session/first', [SessionController::class, 'first'])->middleware('throttle:sign-in');
Route::post('session/demo', [SessionController::class, 'demoStore'])->middleware('throttle:sign-in');

Route::middleware(['auth:sanctum', 'own-people'])->group(static function (): void {
    Route::delete('session', [SessionController::class, 'destroy']);
    Route::put('session/password', [SessionController::class, 'password']);
    Route::get('catalogue', [CatalogueController::class, 'show']);
    Route::get('doubt', [CatalogueController::class, 'doubt']);
    Route::get('belt-loop', [MechanicsController::class, 'belt']);
    Route::get('cutting-data', [MechanicsController::class, 'cutting']);
    Route::post('turning-parts', [MechanicsController::class, 'turning']);
    Route::get('starters', [BuildController::class, 'starters']);
    Route::get('builds', [BuildController::class, 'index']);
    Route::post('builds', [BuildController::class, 'store']);
    Route::post('archives', [BookController::class, 'restore']);
    Route::prefix('builds/{build}')
        ->whereNumber('build')
        ->group(static function (): void {
            Route::get('', [BuildController::class, 'show']);
            Route::delete('', [BuildController::class, 'destroy']);
            Route::get('revision', [BuildController::class, 'revision']);
            Route::get('file', [BuildController::class, 'file']);
            Route::get('parts.csv', [BuildController::class, 'partsList']);
            Route::post('edits', [EditController::class, 'store']);
            Route::get('edits', [EditController::class, 'history']);
            Route::get('edits/{edit}', [EditController::class, 'show'])->whereNumber('edit');
            Route::post('undo', [EditController::class, 'undo']);
            Route::post('redo', [EditController::class, 'redo']);
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
            Route::get('money', [InspectionController::class, 'money']);
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
            Route::get('hours', [WorkController::class, 'hours']);
            Route::get('ladder', [RunController::class, 'ladder']);
            Route::get('book', [BookController::class, 'show']);
            Route::post('template', [BookController::class, 'template']);
            Route::get('book.pdf', [BookController::class, 'pdf']);
            Route::get('archive', [BookController::class, 'archive']);
            Route::post('program', [ServiceController::class, 'program']);
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
            Route::post('mesh', [PrintController::class, 'mesh']);
            Route::get('arrivals', [OrderController::class, 'arrivals']);
            Route::get('stock', [StockController::class, 'index']);
            Route::post('stock', [StockController::class, 'take']);
            Route::get('claims', [OrderController::class, 'claims']);
            Route::get('order', [OrderController::class, 'order']);
            Route::get('order/frontier', [OrderController::class, 'frontier']);
            Route::get('true-cost', [ScopeController::class, 'trueCost']);
            Route::get('scope', [ScopeController::class, 'show']);
            Route::get('routes', [ScopeController::class, 'routes']);
            Route::get('measure-first', [ScopeController::class, 'measureFirst']);
            Route::get('needs/{need}/comparison', [ChoiceController::class, 'comparison']);
            Route::post('needs', [ChoiceController::class, 'place']);
            Route::post('needs/{need}/candidates', [ChoiceController::class, 'adopt']);
            Route::get('variants', [VariantController::class, 'index']);
            Route::post('variants', [VariantController::class, 'store']);
            Route::get('variants/{other}', [VariantController::class, 'show'])->whereNumber('other');
            Route::get('steps/{step}/simulated-reading', [InspectionController::class, 'reading']);
            Route::post('imports', [ImportController::class, 'store']);
            Route::post('photos', [PhotoController::class, 'store']);
            Route::get('photos/{name}', [PhotoController::class, 'show']);
        });
    Route::prefix('workshops/{workshop}/library')
        ->whereNumber('workshop')
        ->group(static function (): void {
            Route::get('', [LibraryController::class, 'index']);
            Route::post('', [LibraryController::class, 'store']);
            Route::post('examples', [LibraryController::class, 'examples']);
            Route::post('undo', [LibraryController::class, 'undo']);
        });
    Route::prefix('library/{item}')
        ->whereNumber('item')
        ->group(static function (): void {
            Route::get('', [LibraryController::class, 'show']);
            Route::put('', [LibraryController::class, 'update']);
            Route::delete('', [LibraryController::class, 'destroy']);
        });
    Route::prefix('imports/{import}')->group(static function (): void {
        Route::get('', [ImportController::class, 'show']);
        Route::put('', [ImportController::class, 'update']);
        Route::post('confirm', [ImportController::class, 'confirm']);
        Route::delete('', [ImportController::class, 'destroy']);
    });
});
