<?php

namespace App\Http\Requests;

use App\Models\Link;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** Which links are wanted: with a word in them, older than one, those that are gone. */
final class ListLinksRequest extends ApiRequest
{
    /** @return array<string, string> */
    public function rules(): array
    {
        return [
            'q' => 'nullable|string|max:200',
            'before' => 'nullable|integer|min:1',
            'gone' => 'nullable|boolean',
        ];
    }

    /**
     * @param HasMany<Link, *> $links
     * @return HasMany<Link, *>
     */
    public function narrowed(HasMany $links): HasMany
    {
        foreach (preg_split('/\s+/', trim((string) $this->validated('q')), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $like = '%'.addcslashes(mb_strtolower($word), '%_\\').'%';
            $links->where(
                static fn ($of) => $of
                    ->whereRaw('lower(title) like ?', [$like])
                    ->orWhereRaw('lower(url) like ?', [$like])
                    ->orWhere('code', mb_strtolower($word)),
            );
        }
        if ($this->validated('gone')) {
            $links->onlyTrashed();
        }

        return $links->when($this->validated('before'), static fn ($q, $id) => $q->where('links.id', '<', $id));
    }
}
