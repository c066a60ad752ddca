<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\HandedOver;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Whole projects leave as a file, and come from one. */
final readonly class ArchiveController
{
    public function __construct(
        private ProjectAccess $access,
        private Archive $archive,
        private ArchiveReader $reader,
        private HandedOver $handedOver,
    ) {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/archive.zip', methods: ['GET'])]
    public function take(Uuid $project): Response
    {
        $of = $this->access->project($project);
        $path = tempnam(sys_get_temp_dir(), 'archive');
        if (false === $path) {
            throw Refusal::noRoom();
        }
        try {
            $this->archive->write($of, $path);
        } catch (\Throwable $e) {
            @unlink($path);
            throw $e;
        }

        return (new BinaryFileResponse($path, 200, $this->handedOver->headers('application/zip', $of, 'archive', 'zip'), autoEtag: false, autoLastModified: false))
            ->deleteFileAfterSend();
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/archives', methods: ['POST'])]
    public function bring(Request $request): Response
    {
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile || !$file->isValid()) {
            throw Refusal::invalid('no-file', 'No archive arrived whole. Choose the ZIP file that a project was taken as.', 'file');
        }

        return new JsonResponse(['id' => $this->reader->read($file->getPathname(), $this->access->user())->toRfc4122()]);
    }
}
