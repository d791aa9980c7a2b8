<?php

namespace App\Models;

/** Stands in addresses by its number, and by nothing that a database would take for it: 1abc is not 1. */
trait NumberedInAddresses
{
    /**
     * @param mixed $query
     * @param mixed $value
     * @param string|null $field
     */
    public function resolveRouteBindingQuery($query, $value, $field = null)
    {
        $number = is_string($value) && preg_match('/^[1-9][0-9]{0,17}$/D', $value) === 1 ? (int) $value : 0;

        return parent::resolveRouteBindingQuery($query, $number, $field);
    }
}
