<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page\Exception;

use Plinth\Core\Fault\Fault;

final class UnreadableRaster extends \InvalidArgumentException implements Fault
{
    public static function wrongLength(int $width, int $height, int $bytes): self
    {
        return new self(\sprintf('A grey raster of %d × %d px needs as many bytes; %d came.', $width, $height, $bytes));
    }

    public static function unreadable(string $path): self
    {
        return new self(\sprintf('The grey values in %s cannot be read.', $path));
    }

    public function why(): string
    {
        return 'unreadable-raster';
    }

    public function at(): string
    {
        return '';
    }
}
