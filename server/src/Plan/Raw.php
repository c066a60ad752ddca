<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Symfony\Component\Uid\Uuid;

/** Values of the database as they come, without entities. */
final class Raw
{
    public static function id(mixed $value): string
    {
        return Uuid::fromBinary(self::text($value))->toRfc4122();
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
