<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/** Bytes told by one level. */
final class Mask
{
    /**
     * @param int $level 0 to 256
     *
     * @return string as long as the bytes: '1' for what reaches the level, '0' for what does not
     */
    public static function of(string $bytes, int $level): string
    {
        static $all = null;
        $all ??= implode('', array_map(\chr(...), range(0, 255)));
        \assert(\is_string($all));

        return strtr($bytes, $all, str_repeat('0', $level).str_repeat('1', 256 - $level));
    }
}
