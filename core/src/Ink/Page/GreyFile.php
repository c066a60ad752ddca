<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Ink\Page\Exception\UnreadableRaster;

/** Grey values of a page in a file, one byte for each pixel after a header; windows are read without loading the rest. */
final class GreyFile implements PageInk
{
    /** @var resource */
    private $file;

    public function __construct(
        private readonly string $path,
        public readonly int $width,
        public readonly int $height,
        private readonly int $headerBytes,
        private readonly bool $lightOnDark = false,
    ) {
        $file = @fopen($path, 'r');
        if (false === $file) {
            throw UnreadableRaster::unreadable($path);
        }
        stream_set_read_buffer($file, 0);
        $this->file = $file;
    }

    public function window(int $left, int $top, int $width, int $height): GreyRaster
    {
        [$left, $top, $width, $height] = GreyRaster::inside($this->width, $this->height, $left, $top, $width, $height);
        $bytes = '';
        for ($y = $top; $y < $top + $height; ++$y) {
            fseek($this->file, $this->headerBytes + $y * $this->width + $left);
            $bytes .= (string) fread($this->file, $width);
        }
        if (\strlen($bytes) !== $width * $height) {
            throw UnreadableRaster::unreadable($this->path);
        }

        $raster = new GreyRaster($width, $height, $bytes);

        return $this->lightOnDark ? $raster->inverted() : $raster;
    }
}
