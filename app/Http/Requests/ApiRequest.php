<?php

namespace App\Http\Requests;

use App\Http\Checked;
use App\Models\Client;
use Illuminate\Foundation\Http\FormRequest;

/** What a call takes, checked from the outside in before the call is carried out. */
abstract class ApiRequest extends FormRequest
{
    /** @var array<string, mixed> */
    private array $checked = [];

    /** @return array<string, mixed> */
    abstract public function rules(): array;

    public function validateResolved(): void
    {
        $this->checked = Checked::input($this, $this->rules(), $this->messages());
    }

    public function validated($key = null, $default = null): mixed
    {
        return data_get($this->checked, $key, $default);
    }

    /** The client in the address. */
    protected function client(): Client
    {
        $client = $this->route('client');

        return $client instanceof Client ? $client : throw new \LogicException('the call is not for a client');
    }
}
