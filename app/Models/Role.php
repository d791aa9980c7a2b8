<?php

namespace App\Models;

/** What a member may do for a client. */
enum Role: string
{
    case Viewer = 'viewer';
    case Editor = 'editor';
    case Reviewer = 'reviewer';
    case Owner = 'owner';

    /** Say yes to others' changes. */
    public function mayReview(): bool
    {
        return $this === self::Reviewer || $this === self::Owner;
    }

    /** Change the plan, import, prepare and apply changes. */
    public function mayEdit(): bool
    {
        return $this === self::Editor || $this === self::Owner;
    }
}
