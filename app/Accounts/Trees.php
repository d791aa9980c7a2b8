<?php

namespace App\Accounts;

use App\Models\Account;
use Illuminate\Support\Facades\Facade;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Trace\Hop;

/**
 * Stored accounts for the core: StoredTrees, for those who are not made by the container.
 *
 * @method static Dialect dialect(Account $account)
 * @method static NamedNodes names(Account $account)
 * @method static list<Hop> hops(Account $account)
 * @method static CoreAccount whole(Account $account)
 * @method static CoreAccount wide(Account $account)
 * @method static CoreAccount around(Account $account, list<int> $tops, Progress $progress = null)
 * @method static CoreAccount to(Account $account, list<int> $elements)
 * @method static CoreAccount above(Account $account, int $behind, int $most)
 * @method static CoreAccount campaigns(Account $account)
 * @method static \Generator<object, CoreNode> each(Account $account, bool $ads, Between $some = null)
 */
final class Trees extends Facade
{
    /** Platforms are known for one request or one piece of work: so is what reads by them. */
    protected static $cached = false;

    protected static function getFacadeAccessor(): string
    {
        return StoredTrees::class;
    }
}
