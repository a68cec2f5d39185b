export {
  SHOP_EVENT_DATA,
  type ShopEvent,
  type ShopEventData,
  type ShopEventType,
  type StockItem,
  type StockUnit,
} from './events.ts';
export {
  type FeltDrag,
  feltAt,
  foldShop,
  type MeasuredSource,
  NEW_SHOP,
  type Shop,
  type StockLevel,
  stockLevels,
  type Used,
  withShopEvent,
} from './fold.ts';
export { hasLead, type Role, roleOf, ROLES, UNNAMED } from './people.ts';
