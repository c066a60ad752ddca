<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Plinth\Server\Files\Store;
use Plinth\Server\Project\Project;
use Symfony\Component\Uid\Uuid;

/** PDFs of whole sets, the latest of each project: made anew whenever anybody asks. */
final readonly class PrintedFiles
{
    public function __construct(private Store $store)
    {
    }

    /** What a set was printed at. */
    public static function version(Project $project): string
    {
        return 'r'.$project->head();
    }

    public function keep(Uuid $project, string $version, string $pdf): void
    {
        $folder = self::folder($project);
        $file = (string) tempnam($this->store->workshop(), 'set');
        file_put_contents($file, $pdf);
        foreach ($this->store->below($folder) as $older) {
            $this->store->remove("$folder/$older");
        }
        $this->store->put("$folder/$version.pdf", $file);
        @unlink($file);
    }

    /** @return string|null where it can be read; null where it was not printed since the last change */
    public function of(Uuid $project, string $version): ?string
    {
        return $this->store->file(self::folder($project)."/$version.pdf");
    }

    private static function folder(Uuid $project): string
    {
        return 'printed/'.$project->toRfc4122();
    }
}
