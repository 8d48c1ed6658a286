import { CompanySettings, Nothing } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { companySettings, setCompany, setScanning } from './service.ts';

export function companyRoutes(api: Api): void {
  api.query(
    { path: '/settings', access: 'settings:see', summary: 'The company’s own settings', answer: CompanySettings },
    ({ services, caller }) => companySettings(services.database.db, caller.company.id),
  );
  api.command(
    { method: 'put', path: '/settings', summary: 'Change name, tax number, mail address', answer: Nothing, tried: true },
    setCompany,
  );
  api.command(
    { method: 'put', path: '/scanning', summary: 'What parts documents in one scan from the scan folder', answer: Nothing },
    setScanning,
  );
}
