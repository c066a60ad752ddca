<?php

declare(strict_types=1);

namespace Plinth\Core\Ink;

use Plinth\Core\Ink\Exception\UnreadableRaster;

/** Grey values of a page in a file, one byte for each pixel after a header; windows are read without loading the rest. */
final class GreyFile
{
    /** @var resource */
    private $file;

    public function __construct(private readonly string $path, public readonly int $width, public readonly int $height, private readonly int $headerBytes)
    {
        $file = @fopen($path, 'r');
        if (false === $file) {
            throw UnreadableRaster::unreadable($path);
        }
        stream_set_read_buffer($file, 0);
        $this->file = $file;
    }

    /** The part of the page inside the box; the box is cut to the page first, and holds at least one pixel of it. */
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

        return new GreyRaster($width, $height, $bytes);
    }
}
