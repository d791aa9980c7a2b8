<?php

namespace App\Jobs;

use App\Mail\PasswordReset;
use App\Models\User;
use Illuminate\Contracts\Queue\ShouldBeEncrypted;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\Password;

/** Sends a link for another password, if the address is anybody's. */
final class SendPasswordReset implements ShouldBeEncrypted, ShouldQueue
{
    use Queueable;

    public int $timeout = 60;

    public int $tries = 3;

    public function __construct(public string $email) {}

    public function handle(): void
    {
        $user = User::query()->where('email', $this->email)->first();
        if ($user !== null) {
            Mail::to($user->email)->send(
                new PasswordReset($user->name, $user->email, Password::broker()->createToken($user)),
            );
        }
    }
}
