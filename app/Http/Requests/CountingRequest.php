<?php

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use Vestigon\Core\Watch\Model;

/** How what arrives is to be counted. */
final class CountingRequest extends ApiRequest
{
    /** `*.` before it: all hosts below it too. */
    private const HOST = '/^(\*\.)?(?=.{1,253}$)[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/';

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'attribution' => 'required|array:model,days',
            'attribution.model' => ['required', Rule::enum(Model::class)],
            'attribution.days' => 'required|integer|min:1|max:400',
            'referrers' => 'present|array|list|max:500',
            'referrers.*' => 'array:host,source,medium',
            'referrers.*.host' => ['required', 'string', 'regex:'.self::HOST],
            'referrers.*.source' => 'required|string|max:120',
            'referrers.*.medium' => 'required|string|max:120',
            'stations' => 'present|array|list|max:200',
            'stations.*' => ['string', 'regex:'.self::HOST],
            'retention' => 'required|integer|min:30|max:4000',
            'provisional' => 'required|integer|min:0|max:30',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        $wrong = '“:input” is no host name. Write it like shop.example, or *.shop.example for all below it.';

        return ['referrers.*.host.regex' => $wrong, 'stations.*.regex' => $wrong];
    }
}
