<?php

use App\Http\Controllers\AccountController;
use App\Http\Controllers\AgreementController;
use App\Http\Controllers\ArrivalController;
use App\Http\Controllers\BalanceController;
use App\Http\Controllers\ChangeController;
use App\Http\Controllers\ChannelController;
use App\Http\Controllers\ClickController;
use App\Http\Controllers\ClientController;
use App\Http\Controllers\ConnectionController;
use App\Http\Controllers\CountingController;
use App\Http\Controllers\DialectController;
use App\Http\Controllers\EditController;
use App\Http\Controllers\FeedController;
use App\Http\Controllers\FeedDraftController;
use App\Http\Controllers\FindingController;
use App\Http\Controllers\ForgottenController;
use App\Http\Controllers\ImportController;
use App\Http\Controllers\IntakeController;
use App\Http\Controllers\InvitationController;
use App\Http\Controllers\LearnController;
use App\Http\Controllers\LedgerController;
use App\Http\Controllers\LinkController;
use App\Http\Controllers\LinkFileController;
use App\Http\Controllers\NameController;
use App\Http\Controllers\NumberController;
use App\Http\Controllers\OutsideController;
use App\Http\Controllers\PeopleController;
use App\Http\Controllers\PersonController;
use App\Http\Controllers\PlanController;
use App\Http\Controllers\PlanFileController;
use App\Http\Controllers\PlanHistoryController;
use App\Http\Controllers\ReadingController;
use App\Http\Controllers\ResultController;
use App\Http\Controllers\ResultViewController;
use App\Http\Controllers\RolloutController;
use App\Http\Controllers\RulesController;
use App\Http\Controllers\SearchController;
use App\Http\Controllers\SessionController;
use App\Http\Controllers\SheetController;
use App\Http\Controllers\SheetMapController;
use App\Http\Controllers\ShortHostController;
use App\Http\Controllers\SiteController;
use App\Http\Controllers\SiteFileController;
use App\Http\Controllers\TraceController;
use App\Http\Controllers\TrackerController;
use App\Http\Controllers\TroubleController;
use App\Http\Controllers\UrlController;
use App\Http\Controllers\VisitorController;
use App\Http\Controllers\WordController;
use App\Models\Client;
use Illuminate\Support\Facades\Route;

Route::middleware('our-pages')->group(function () {
    Route::post('session', [SessionController::class, 'store']);
    Route::post('session/code', [SessionController::class, 'code']);
    Route::post('password/forgotten', [ForgottenController::class, 'ask']);
    Route::post('password/reset', [ForgottenController::class, 'reset']);
    Route::post('invitations/look', [InvitationController::class, 'look']);
    Route::post('invitations/accept', [InvitationController::class, 'accept']);
});
Route::middleware(['auth:sanctum', 'fresh'])->group(function () {
    Route::get('session', [SessionController::class, 'show']);
    Route::middleware('our-pages')->group(function () {
        Route::delete('session', [SessionController::class, 'destroy']);
        Route::post('invitations/join', [InvitationController::class, 'join']);
        Route::get('person', [PersonController::class, 'show']);
        Route::put('person/password', [PersonController::class, 'changePassword']);
        Route::post('person/second-factor', [PersonController::class, 'beginSecondFactor']);
        Route::put('person/second-factor', [PersonController::class, 'confirmSecondFactor']);
        Route::delete('person/second-factor', [PersonController::class, 'endSecondFactor']);
        Route::delete('person/sessions', [PersonController::class, 'endOtherSessions']);
        Route::delete('person/sessions/{session}', [PersonController::class, 'endSession'])->where(
            'session',
            '[0-9a-f]{32}',
        );
    });

    Route::post('clients', [ClientController::class, 'store'])->can('create', Client::class);

    // all that stands behind a client in an address is bound through it, or not at all
    Route::prefix('clients/{client}')
        ->middleware('can:view,client')
        ->scopeBindings()
        ->group(function () {
            Route::get('/', [ClientController::class, 'show']);
            Route::middleware('can:own,client')->group(function () {
                Route::put('/', [ClientController::class, 'update']);
                Route::get('people', [PeopleController::class, 'index']);
                Route::put('people/{member}', [PeopleController::class, 'update']);
                Route::delete('people/{member}', [PeopleController::class, 'destroy']);
                Route::post('invitations', [InvitationController::class, 'store'])->middleware('throttle:heavy');
                Route::delete('invitations/{invitation}', [InvitationController::class, 'destroy']);
            });
            Route::get('plan', [PlanController::class, 'show']);
            Route::put('plan', [PlanController::class, 'update'])->middleware('can:edit,client');
            Route::post('plan/preview', [PlanController::class, 'preview']);
            Route::get('plan/advice', [PlanController::class, 'advice']);
            Route::get('plan/revisions', [PlanHistoryController::class, 'index']);
            Route::get('plan/revisions/{revision}', [PlanHistoryController::class, 'show'])->whereNumber('revision');
            Route::post('plan/differences', [PlanHistoryController::class, 'differences']);
            Route::post('plan/consequences', [PlanHistoryController::class, 'consequences'])->middleware(
                'throttle:heavy',
            );
            Route::get('plan/file', [PlanFileController::class, 'out']);
            Route::post('plan/file', [PlanFileController::class, 'in']);

            Route::get('connections', [ImportController::class, 'index']);
            Route::post('connections/{connection}/imports', [ImportController::class, 'store'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::middleware('can:own,client')->group(function () {
                Route::post('connections', [ConnectionController::class, 'store'])->middleware('throttle:heavy');
                Route::delete('connections/{connection}', [ConnectionController::class, 'destroy']);
            });
            Route::put('connections/{connection}/schedule', [ImportController::class, 'schedule'])->middleware(
                'can:edit,client',
            );
            Route::get('outside', [OutsideController::class, 'index']);
            Route::get('outside/{outsideChange}/agreement', [OutsideController::class, 'agreement']);
            Route::middleware('can:edit,client')->group(function () {
                Route::post('accounts/{account}/outside/acceptance', [OutsideController::class, 'accept']);
                Route::delete('accounts/{account}/outside/acceptance', [OutsideController::class, 'reopen']);
                Route::post('accounts/{account}/outside/return', [OutsideController::class, 'putBack'])->middleware(
                    'throttle:heavy',
                );
            });
            Route::get('intakes', [IntakeController::class, 'index']);
            Route::get('intakes/{intake}', [IntakeController::class, 'show']);
            Route::get('intakes/{intake}/problems', [IntakeController::class, 'problems']);
            Route::get('intakes/{intake}/problems/file', [IntakeController::class, 'problemsFile']);
            Route::middleware('can:edit,client')->group(function () {
                Route::post('intakes', [IntakeController::class, 'store']);
                Route::delete('intakes/{intake}', [IntakeController::class, 'destroy']);
                Route::post('intakes/{intake}/files', [IntakeController::class, 'addFile']);
                Route::put('intakes/{intake}/files/{file}', [IntakeController::class, 'part']);
                Route::delete('intakes/{intake}/files/{file}', [IntakeController::class, 'removeFile']);
                Route::put('intakes/{intake}/look', [IntakeController::class, 'look']);
                Route::put('intakes/{intake}/reading', [IntakeController::class, 'read'])->middleware('throttle:heavy');
                Route::post('intakes/{intake}/import', [IntakeController::class, 'begin'])->middleware(
                    'throttle:heavy',
                );
            });
            Route::get('running', [ImportController::class, 'running']);

            Route::get('accounts', [AccountController::class, 'index']);
            Route::get('accounts/{account}/rows', [AccountController::class, 'rows']);
            Route::get('accounts/{account}/names/file', [NameController::class, 'file'])->middleware('throttle:heavy');
            Route::post('accounts/{account}/names/change', [NameController::class, 'change'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::get('accounts/{account}/sends', [AccountController::class, 'sends']);
            Route::get('accounts/{account}/apart', [AccountController::class, 'apart']);
            Route::get('accounts/{account}/findings', [FindingController::class, 'index']);
            Route::get('accounts/{account}/picture', [FindingController::class, 'picture']);
            Route::post('findings/{finding}/change', [FindingController::class, 'mend'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::get('nodes/{node}', [AccountController::class, 'show'])->withTrashed();
            Route::post('nodes/{node}/trace', TraceController::class)->withTrashed();
            Route::get('search', SearchController::class);
            Route::post('urls/senders', [UrlController::class, 'senders'])->middleware('throttle:heavy');
            Route::post('numbers', [NumberController::class, 'look'])->middleware('throttle:heavy');
            Route::post('numbers/file', [NumberController::class, 'sheet'])->middleware('throttle:heavy');
            Route::post('urls/many', [UrlController::class, 'many'])->middleware('throttle:heavy');
            Route::post('urls/many/file', [UrlController::class, 'sheet'])->middleware('throttle:heavy');

            Route::get('changes', [ChangeController::class, 'index']);
            Route::post('changes', [ChangeController::class, 'store'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::get('changes/{change}', [ChangeController::class, 'show']);
            Route::get('changes/{change}/writes', [ChangeController::class, 'writes']);
            Route::post('changes/{change}/drop', [ChangeController::class, 'drop'])->middleware(
                'can:edit,client',
            );
            Route::post('changes/{change}/again', [ChangeController::class, 'again'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::post('changes/{change}/looks', [RolloutController::class, 'look']);
            Route::post('changes/{change}/approval', [RolloutController::class, 'approve'])->middleware(
                'can:review,client',
            );
            Route::post('changes/{change}/refusal', [RolloutController::class, 'refuse'])->middleware(
                'can:review,client',
            );
            Route::post('changes/{change}/application', [RolloutController::class, 'apply'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::post('changes/{change}/together/application', [
                RolloutController::class,
                'applyAll',
            ])->middleware(['can:edit,client', 'throttle:heavy']);
            Route::post('changes/{change}/pause', [RolloutController::class, 'pause'])->middleware(
                'can:edit,client',
            );
            Route::post('changes/{change}/stop', [RolloutController::class, 'stop'])->middleware(
                'can:edit,client',
            );
            Route::post('changes/{change}/reversal', [RolloutController::class, 'takeBack'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);

            Route::get('audit', [RulesController::class, 'audit'])->middleware('can:own,client');
            Route::get('rules', [RulesController::class, 'show']);
            Route::put('rules', [RulesController::class, 'update'])->middleware('can:own,client');
            Route::post('nodes/{node}/click', ClickController::class)->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::get('nodes/{node}/then', [LedgerController::class, 'then'])->withTrashed();
            Route::get('ledger', [LedgerController::class, 'index']);
            Route::get('accounts/{account}/differences', [LedgerController::class, 'differences']);
            Route::get('accounts/{account}/day', [LedgerController::class, 'day']);
            Route::post('accounts/{account}/edits', [EditController::class, 'edit'])->middleware(
                'throttle:heavy',
            );
            Route::get('filters', [EditController::class, 'filters']);
            Route::post('filters', [EditController::class, 'keep'])->middleware('can:edit,client');
            Route::get('agreements/channels/caught', [ChannelController::class, 'caught']);
            Route::post('agreements/channels/trial', [ChannelController::class, 'try']);
            Route::post('agreements/channels/shift', [ChannelController::class, 'shift'])->middleware(
                'throttle:heavy',
            );
            Route::get('agreements/words/uses', [WordController::class, 'index']);
            Route::post('agreements/words/reach', [WordController::class, 'reach'])->middleware('throttle:heavy');
            Route::post('agreements/words/changes', [WordController::class, 'change'])->middleware([
                'can:edit,client',
                'throttle:heavy',
            ]);
            Route::post('agreements/names/composition', [NameController::class, 'compose']);
            Route::post('agreements/names/reading', [NameController::class, 'read'])->middleware('throttle:heavy');
            Route::get('agreements/{kind}', [AgreementController::class, 'show']);
            Route::put('agreements/{kind}', [AgreementController::class, 'update'])->middleware('can:edit,client');
            Route::get('sheet-maps', [SheetMapController::class, 'index']);
            Route::post('sheet-maps', [SheetMapController::class, 'store'])->middleware('can:edit,client');
            Route::post('sheet-maps/suggestion', [SheetMapController::class, 'suggest']);
            Route::get('sheet-maps/{sheetMap}', [SheetMapController::class, 'show']);
            Route::delete('sheet-maps/{sheetMap}', [SheetMapController::class, 'destroy'])->middleware(
                'can:edit,client',
            );
            Route::get('changes/{change}/sheet', [SheetController::class, 'write'])->middleware(
                'can:edit,client',
            );
            Route::post('changes/{change}/sheet', [SheetController::class, 'read'])->middleware(
                'can:edit,client',
            );
            Route::post('changes/{change}/sheet/taken', [SheetController::class, 'taken'])->middleware(
                'can:edit,client',
            );
            Route::delete('filters/{filter}', [EditController::class, 'forget'])->middleware('can:edit,client');

            Route::get('platforms', [DialectController::class, 'index']);
            Route::put('platforms', [DialectController::class, 'update'])->middleware('can:edit,client');
            Route::post('platforms/placeholders', [LearnController::class, 'placeholders']);
            Route::post('platforms/explanation', [LearnController::class, 'explain']);
            Route::post('platforms/consequences', [LearnController::class, 'weigh'])->middleware('throttle:heavy');
            Route::post('platforms/trial', [DialectController::class, 'tryOut']);
            Route::get('platforms/{dialect}', [DialectController::class, 'show'])->where('dialect', '[a-z0-9-]+');
            Route::get('platforms/{dialect}/file', [DialectController::class, 'file'])->where(
                'dialect',
                '[a-z0-9-]+',
            );
            Route::delete('platforms/{dialect}', [DialectController::class, 'destroy'])
                ->middleware('can:edit,client')
                ->where('dialect', '[a-z0-9-]+');

            Route::get('trackers', [TrackerController::class, 'index']);
            Route::post('trackers/trial', [TrackerController::class, 'tryOut']);
            Route::middleware('can:edit,client')->group(function () {
                Route::post('trackers', [TrackerController::class, 'store']);
                Route::put('trackers/{tracker}', [TrackerController::class, 'update']);
                Route::put('trackers/{tracker}/counts', [TrackerController::class, 'counts'])->middleware(
                    'throttle:heavy',
                );
                Route::delete('trackers/{tracker}', [TrackerController::class, 'destroy']);
            });

            Route::get('sites', [SiteController::class, 'index']);
            Route::get('sites/{collector}/files', [SiteFileController::class, 'index']);
            Route::middleware('can:edit,client')->group(function () {
                Route::get('sites/{collector}/files/{siteFile}', [SiteFileController::class, 'show']);
                Route::post('sites/{collector}/files', [SiteFileController::class, 'store'])->middleware(
                    'throttle:heavy',
                );
                Route::put('sites/{collector}/files/{siteFile}', [SiteFileController::class, 'update']);
                Route::post('sites/{collector}/files/{siteFile}/reading', [SiteFileController::class, 'read']);
                Route::delete('sites/{collector}/files/{siteFile}', [SiteFileController::class, 'destroy']);
            });
            Route::middleware('can:own,client')->group(function () {
                Route::post('sites', [SiteController::class, 'store']);
                Route::delete('sites/{collector}', [SiteController::class, 'destroy']);
                Route::post('sites/{collector}/token', [SiteController::class, 'token']);
            });
            Route::get('feeds', [FeedController::class, 'index']);
            Route::get('feeds/{feed}', [FeedController::class, 'show']);
            Route::post('feeds/{feed}/trial', [FeedController::class, 'try']);
            Route::get('feeds/{feed}/drafts', [FeedDraftController::class, 'index']);
            Route::get('feeds/{feed}/drafts/{draft}', [FeedDraftController::class, 'show']);
            Route::middleware('can:edit,client')->group(function () {
                Route::post('feeds', [FeedController::class, 'store'])->middleware('throttle:heavy');
                Route::put('feeds/{feed}', [FeedController::class, 'update']);
                Route::delete('feeds/{feed}', [FeedController::class, 'destroy']);
                Route::post('feeds/{feed}/return', [FeedController::class, 'restore'])->withTrashed();
                Route::post('feeds/{feed}/fetch', [FeedController::class, 'fetch'])->middleware('throttle:heavy');
                Route::put('feeds/{feed}/file', [FeedController::class, 'put'])->middleware('throttle:heavy');
                Route::post('feeds/{feed}/copies/{copy}/acceptance', [FeedController::class, 'accept']);
                Route::post('feeds/{feed}/drafts', [FeedDraftController::class, 'store'])->middleware(
                    'throttle:heavy',
                );
                Route::post('feeds/{feed}/drafts/{draft}/application', [FeedDraftController::class, 'apply']);
                Route::post('feeds/{feed}/drafts/{draft}/discard', [FeedDraftController::class, 'discard']);
            });
            Route::get('links', [LinkController::class, 'index']);
            Route::get('links/file', [LinkFileController::class, 'out'])->middleware('throttle:heavy');
            Route::post('links/look', [LinkController::class, 'look']);
            Route::post('links/sheet', [LinkFileController::class, 'in'])->middleware('throttle:heavy');
            Route::get('links/hosts', [ShortHostController::class, 'index']);
            Route::middleware('can:own,client')->group(function () {
                Route::post('links/hosts', [ShortHostController::class, 'store']);
                Route::delete('links/hosts/{shortHost}', [ShortHostController::class, 'destroy']);
            });
            Route::get('links/{link}', [LinkController::class, 'show'])->withTrashed();
            Route::middleware('can:edit,client')->group(function () {
                Route::post('links', [LinkController::class, 'store']);
                Route::put('links/{link}', [LinkController::class, 'update']);
                Route::delete('links/{link}', [LinkController::class, 'destroy']);
                Route::post('links/{link}/return', [LinkController::class, 'restore'])->withTrashed();
            });
            Route::get('troubles', [TroubleController::class, 'index']);
            Route::get('troubles/report', [TroubleController::class, 'report'])->middleware('throttle:heavy');
            Route::get('troubles/{trouble}/ads', [TroubleController::class, 'ads']);
            Route::middleware('can:edit,client')->group(function () {
                Route::put('troubles/{trouble}/accepted', [TroubleController::class, 'accept']);
                Route::delete('troubles/{trouble}/accepted', [TroubleController::class, 'acceptNoLonger']);
            });
            Route::post('results', [ResultController::class, 'lines']);
            Route::post('results/sessions', [ResultController::class, 'sessions']);
            Route::post('results/file', [ResultController::class, 'file'])->middleware('throttle:heavy');
            Route::get('results/views', [ResultViewController::class, 'index']);
            Route::post('results/views', [ResultViewController::class, 'store']);
            Route::delete('results/views/{resultView}', [ResultViewController::class, 'destroy']);
            Route::post('readings', [ReadingController::class, 'store'])->middleware('throttle:heavy');
            Route::get('readings/{reading}', [ReadingController::class, 'show']);
            Route::get('readings/{reading}/file', [ReadingController::class, 'file'])->middleware('throttle:heavy');
            Route::get('balance', [BalanceController::class, 'clicks']);
            Route::get('balance/claims', [BalanceController::class, 'claims']);
            Route::get('counting', [CountingController::class, 'show']);
            Route::put('counting', [CountingController::class, 'update'])->middleware('can:edit,client');
            Route::get('arrivals', [ArrivalController::class, 'index']);
            Route::get('arrivals/totals', [ArrivalController::class, 'totals']);
            Route::get('arrivals/{arrival}/way', [ArrivalController::class, 'way']);
            Route::middleware(['can:own,client', 'throttle:heavy'])->group(function () {
                Route::get('arrivals/{arrival}/visitor', [VisitorController::class, 'show']);
                Route::delete('arrivals/{arrival}/visitor', [VisitorController::class, 'destroy']);
            });
        });
});
