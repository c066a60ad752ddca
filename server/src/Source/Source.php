<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Source\Reading\Format;

/** An imported file, kept byte for byte under its SHA-256. */
#[Kind('source', isWritten: false, mended: ['name', 'origin', 'address'])]
#[ORM\Entity]
class Source extends ProjectRow
{
    #[ORM\Column(length: 200)]
    private string $name = '';

    #[ORM\Column(length: 64)]
    private string $sha256 = '';

    #[ORM\Column]
    private int $bytes = 0;

    #[ORM\Column(length: 40)]
    private string $mediaType = '';

    /** where it came from, in the words of whoever brought it in */
    #[ORM\Column(length: 400)]
    private string $origin = '';

    /** of a page on the web or a shelf in the archive */
    #[ORM\Column(length: 400)]
    private string $address = '';

    #[ORM\Column(length: 80)]
    private string $broughtBy = '';

    /** ISO 8601, UTC */
    #[ORM\Column(length: 32)]
    private string $broughtAt = '';

    public function values(): array
    {
        return [
            'name' => $this->name,
            'sha256' => $this->sha256,
            'bytes' => $this->bytes,
            'mediaType' => $this->mediaType,
            'origin' => $this->origin,
            'address' => $this->address,
            'broughtBy' => $this->broughtBy,
            'broughtAt' => $this->broughtAt,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name', 200);
        $this->sha256 = $values->name('sha256', 64);
        $this->bytes = $values->count('bytes');
        $this->mediaType = $values->name('mediaType', 40);
        $this->origin = $values->text('origin', 400);
        $this->address = $values->text('address', 400);
        $this->broughtBy = $values->text('broughtBy', 80);
        $this->broughtAt = $values->text('broughtAt', 32);
    }

    public function name(): string
    {
        return $this->name;
    }

    public function format(): Format
    {
        return Format::from($this->mediaType);
    }

    public function sha256(): string
    {
        return $this->sha256;
    }
}
