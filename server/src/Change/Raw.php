<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

/** Values of the database as they come, without entities. */
final class Raw
{
    public static function id(mixed $value): string
    {
        $hex = bin2hex(self::text($value));

        return substr($hex, 0, 8).'-'.substr($hex, 8, 4).'-'.substr($hex, 12, 4).'-'.substr($hex, 16, 4).'-'.substr($hex, 20);
    }

    public static function number(mixed $value): float
    {
        return is_numeric($value) ? (float) $value : 0.0;
    }

    public static function optional(mixed $value): ?float
    {
        return null === $value ? null : self::number($value);
    }

    public static function text(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '';
    }
}
