<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

/** Rows that lie on a storey and are told with it: a project of many storeys need not be told at once. */
interface OnStorey
{
    /** @return string condition in DQL that a row `r` lies on `:storey` */
    public static function onStorey(): string;
}
